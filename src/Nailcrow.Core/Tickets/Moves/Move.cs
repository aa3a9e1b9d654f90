using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>What kind of thing a move is; every interface offers the way to do it from this one word.</summary>
[JsonConverter(typeof(KebabEnum<Move>))]
public enum Move
{
    Nothing,
    LiftHold,
    AnswerHelp,
    NoSwap,
    Take,
    TakeSnapshot,
    ReservePart,
    IssuePart,
    Arrive,
    StartRun,
    FollowRun,
    Settle,
    OpenReturn,
    SendReturn,
    BookIn,
    SignOff,
    Close,
    Assign,
    PlanVisit,
    PutOnHold,
    WriteNote,
    CallHelp,
    AddEvidence,
    TypeSnapshot,
    ChooseDrives,
    DecideStep,
    PassStep,
    OverruleStep,
    TakeBackStep,
    SwitchLight,
    TakeReading,
    TypeReading,
    TakeBackReading,
    RecordWipe,
    CloseOtherwise,
    Cancel,
    Reopen,
}
