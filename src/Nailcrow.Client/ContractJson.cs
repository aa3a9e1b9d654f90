using System.Text.Json.Serialization;
using Nailcrow.Client.Admin;
using Nailcrow.Client.Appliances;
using Nailcrow.Client.Intake;
using Nailcrow.Client.People;
using Nailcrow.Client.Procedures;
using Nailcrow.Client.Rebuilds;
using Nailcrow.Client.Returns;
using Nailcrow.Client.Swaps;
using Nailcrow.Client.Tickets;
using Nailcrow.Client.Tickets.Planning;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Client;

/// <summary>How the interface's messages are written as JSON, for both ends, without reflection.</summary>
[JsonSourceGenerationOptions(
    PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase,
    AllowOutOfOrderMetadataProperties = true,
    RespectNullableAnnotations = true,
    RespectRequiredConstructorParameters = true,
    IgnoreReadOnlyProperties = true,
    NumberHandling = JsonNumberHandling.Strict,
    Converters = [typeof(EntryConverter)]
)]
[JsonSerializable(typeof(PersonLetIn))]
[JsonSerializable(typeof(PersonName))]
[JsonSerializable(typeof(PersonRoles))]
[JsonSerializable(typeof(PersonOut))]
[JsonSerializable(typeof(PasswordGiven))]
[JsonSerializable(typeof(OwnPassword))]
[JsonSerializable(typeof(PersonHolds))]
[JsonSerializable(typeof(HandOverAsk))]
[JsonSerializable(typeof(HandedOverAll))]
[JsonSerializable(typeof(ComingsIn))]
[JsonSerializable(typeof(ScriptKeyAsk))]
[JsonSerializable(typeof(ScriptKeyMade))]
[JsonSerializable(typeof(SecurityPage))]
[JsonSerializable(typeof(EntryAsk))]
[JsonSerializable(typeof(Receipt))]
[JsonSerializable(typeof(JournalPage))]
[JsonSerializable(typeof(TicketPage))]
[JsonSerializable(typeof(TicketView))]
[JsonSerializable(typeof(MoveList))]
[JsonSerializable(typeof(DrivesView))]
[JsonSerializable(typeof(Proposal))]
[JsonSerializable(typeof(IReadOnlyList<TicketPaper>))]
[JsonSerializable(typeof(ServiceReport))]
[JsonSerializable(typeof(LiveEntry))]
[JsonSerializable(typeof(SheetAsk))]
[JsonSerializable(typeof(LightAsk))]
[JsonSerializable(typeof(WaitingView))]
[JsonSerializable(typeof(SeenByPerson))]
[JsonSerializable(typeof(FaultAsk))]
[JsonSerializable(typeof(RebuildView))]
[JsonSerializable(typeof(ApplianceView))]
[JsonSerializable(typeof(AppliancePage))]
[JsonSerializable(typeof(MachineAsk))]
[JsonSerializable(typeof(MachineAdded))]
[JsonSerializable(typeof(IReadOnlyList<PaperPlace>))]
[JsonSerializable(typeof(SiteList))]
[JsonSerializable(typeof(PartnerList))]
[JsonSerializable(typeof(SigningText))]
[JsonSerializable(typeof(PartnerAsk))]
[JsonSerializable(typeof(PartnerPut))]
[JsonSerializable(typeof(OutboxPage))]
[JsonSerializable(typeof(WarrantyPage))]
[JsonSerializable(typeof(ErrandView))]
[JsonSerializable(typeof(OtherSheets))]
[JsonSerializable(typeof(CustomerView))]
[JsonSerializable(typeof(CustomerPage))]
[JsonSerializable(typeof(StoresDesk))]
[JsonSerializable(typeof(PartLineView))]
[JsonSerializable(typeof(PartPage))]
[JsonSerializable(typeof(Balance))]
[JsonSerializable(typeof(ReceiveAsk))]
[JsonSerializable(typeof(ReceiveAnswer))]
[JsonSerializable(typeof(MoveAsk))]
[JsonSerializable(typeof(MoveAnswer))]
[JsonSerializable(typeof(HandOutAsk))]
[JsonSerializable(typeof(CountAsk))]
[JsonSerializable(typeof(CountAnswer))]
[JsonSerializable(typeof(SupplyAsk))]
[JsonSerializable(typeof(SupplyAnswer))]
[JsonSerializable(typeof(SupplyView))]
[JsonSerializable(typeof(IReadOnlyList<SupplyStock>))]
[JsonSerializable(typeof(WriteOffAsk))]
[JsonSerializable(typeof(WipeAsk))]
[JsonSerializable(typeof(BaysView))]
[JsonSerializable(typeof(MachineAccessView))]
[JsonSerializable(typeof(MachineSignInAsk))]
[JsonSerializable(typeof(TrustAsk))]
[JsonSerializable(typeof(WaitingMachines))]
[JsonSerializable(typeof(Trial))]
[JsonSerializable(typeof(Loaded))]
[JsonSerializable(typeof(ReferenceData))]
[JsonSerializable(typeof(ProcedureList))]
[JsonSerializable(typeof(ProcedureView))]
[JsonSerializable(typeof(IReadOnlyList<ApplianceModel>))]
[JsonSerializable(typeof(PublishAsk))]
[JsonSerializable(typeof(WithdrawAsk))]
[JsonSerializable(typeof(ProcedurePage))]
[JsonSerializable(typeof(VersionDifference))]
[JsonSerializable(typeof(TimesView))]
[JsonSerializable(typeof(Nailcrow.Core.Procedures.RunSheet))]
[JsonSerializable(typeof(SignInAsk))]
[JsonSerializable(typeof(SignInWays))]
[JsonSerializable(typeof(DeviceAsked))]
[JsonSerializable(typeof(DeviceShown))]
[JsonSerializable(typeof(DeviceWaits))]
[JsonSerializable(typeof(ElsewhereJoining))]
[JsonSerializable(typeof(SecondFactorView))]
[JsonSerializable(typeof(SecondFactorSet))]
[JsonSerializable(typeof(PasswordSaid))]
[JsonSerializable(typeof(CodesOffered))]
[JsonSerializable(typeof(CodeSaid))]
[JsonSerializable(typeof(PasskeyAsked))]
[JsonSerializable(typeof(PasskeyMade))]
[JsonSerializable(typeof(PasskeyShown))]
[JsonSerializable(typeof(Token))]
[JsonSerializable(typeof(PersonView))]
[JsonSerializable(typeof(PeopleList))]
[JsonSerializable(typeof(PersonAsk))]
[JsonSerializable(typeof(PersonMail))]
[JsonSerializable(typeof(Verified))]
[JsonSerializable(typeof(VerifyNews))]
[JsonSerializable(typeof(VerifyAsk))]
[JsonSerializable(typeof(SealMade))]
[JsonSerializable(typeof(NodeList))]
[JsonSerializable(typeof(TicketProof))]
[JsonSerializable(typeof(ReadingPage))]
[JsonSerializable(typeof(Rebuilt))]
[JsonSerializable(typeof(Problem))]
[JsonSerializable(typeof(IntakeList))]
[JsonSerializable(typeof(RuleList))]
[JsonSerializable(typeof(TryAsk))]
[JsonSerializable(typeof(Tried))]
[JsonSerializable(typeof(Nailcrow.Core.Intake.Rules.IntakeRule))]
[JsonSerializable(typeof(RulePut))]
[JsonSerializable(typeof(IntakeSettleAsk))]
[JsonSerializable(typeof(EventSenderView))]
[JsonSerializable(typeof(DeskView))]
[JsonSerializable(typeof(DayView))]
[JsonSerializable(typeof(DriveList))]
[JsonSerializable(typeof(DriveLifeView))]
[JsonSerializable(typeof(SnapshotList))]
[JsonSerializable(typeof(SnapshotDifference))]
[JsonSerializable(typeof(BayMapView))]
[JsonSerializable(typeof(BringView))]
[JsonSerializable(typeof(ImportResult))]
[JsonSerializable(typeof(BayChange[]))]
public sealed partial class ContractJson : JsonSerializerContext;
