namespace Nailcrow.Core.Tests.Procedures;

/// <summary>Steps that nobody comes by, ways without an end, gates that never open.</summary>
internal static class BrokenWays
{
    public static IReadOnlyList<Oddity> All => [.. Ways, .. Facts];

    private static readonly Oddity[] Ways =
    [
        Oddity.Before(
            "strap",
            "- id: hot\n  read: How warm is the room?\n  unit: °C\n  at-least: 5\n  at-most: 45\n- id: leave\n  do: Open a window.\n"
                + "  when: answer.hot is above 50",
            "a window is opened at a heat that cannot be read",
            "No path leads to 'leave'."
        ),
        Oddity.Before(
            "strap",
            "- id: hot\n  read: How warm is the room?\n  unit: °C\n- id: home\n  do: Go home.\n  when: answer.hot is above 30\n  then: end",
            "on hot days everybody goes home",
            "The end is reached without a rebuild seen to start."
        ),
        Oddity.Before(
            "strap",
            "- id: round\n  look: Is the room cold?\n  answers: { \"yes\": round-two, \"no\": round-two }\n- id: round-two\n"
                + "  look: Really?\n  answers: { \"yes\": round, \"no\": round }",
            "two questions ask each other",
            "no end can be reached any more"
        ),
        Oddity.Before("strap", "- id: never\n  do: Dance.\n  when: never", "a step is for no machine", "No path leads to 'never'."),
        Oddity.Before(
            "strap",
            "- id: both\n  do: Dance.\n  when: model.loading is top and model.loading is front",
            "a step is for machines that load at the top and at the front",
            "No path leads to 'both'."
        ),
        Oddity.Before(
            "strap",
            "- id: small\n  do: Dance.\n  when: model.bays is above 12 and model.bays is below 8",
            "a step is for machines both big and small",
            "No path leads to 'small'."
        ),
        Oddity.Before(
            "strap",
            "- id: weather\n  look: Does it rain?\n  answers: { \"yes\": go on, \"no\": go on }",
            "a question changes nothing",
            "'weather' asks something that nothing uses"
        ),
        Oddity.Before(
            "strap",
            "- id: silent\n  call: Say that you are there.\n  then: strap",
            "a call sends nothing along",
            "Call 'silent' sends no facts along"
        ),
        new(
            "what one should see has nowhere to go but back to itself",
            "not-reached",
            "not-so: stuck\n",
            "not-so: seen\n",
            "Gate 'seen' may stay shut"
        ),
        new(
            "the call for help calls itself",
            "front-hot",
            "    with: [asset, array, bay, serial]\n    then: back\n",
            "    with: [asset, array, bay, serial]\n    then: stuck\n",
            "no end can be reached any more"
        ),
    ];

    private static readonly Oddity[] Facts =
    [
        Oddity.Before(
            "mark-software",
            "- id: spare\n  gate: The spare is back.\n  needs: spare-back",
            "the spare has to be back before anything is swapped",
            "Gate 'spare' needs spare-back, and nothing before it supplies that."
        ),
        Oddity.Before(
            "strap",
            "- id: joined-already\n  gate: The new drive is a member.\n  needs: drive-joined",
            "the new drive has to be a member before anybody goes in",
            "Gate 'joined-already' needs drive-joined, and nothing before it supplies that."
        ),
        Oddity.Before(
            "strap",
            "- id: foreign\n  gate: Nothing foreign.\n  needs: nothing-foreign",
            "the new drive has to be empty before it is in",
            "Gate 'foreign' needs nothing-foreign, and nothing before it supplies that."
        ),
        Oddity.Before(
            "strap",
            "- id: since\n  gate: A snapshot from after.\n  needs: snapshot-after",
            "a snapshot from after is asked for before",
            "Gate 'since' needs snapshot-after, and nothing before it supplies that."
        ),
        Oddity.Before(
            "mark-software",
            "- id: whole-already\n  gate: It is whole again.\n  needs: array-whole",
            "it has to be whole before anything is swapped",
            "Gate 'whole-already' needs array-whole, and nothing before it supplies that."
        ),
        Oddity.Before(
            "mark-software",
            "- id: sees\n  gate: The new drive is seen.\n  needs: new-drive-seen",
            "the new drive has to be seen before the old one is out",
            "Gate 'sees' needs new-drive-seen, and nothing before it supplies that."
        ),
        Oddity.Before(
            "insert",
            "- id: rebuilds\n  gate: It rebuilds.\n  needs: rebuild-seen",
            "a rebuild has to be seen with the bay empty",
            "Gate 'rebuilds' needs rebuild-seen, and nothing before it supplies that."
        ),
        Oddity.Before(
            "part",
            "- id: asked\n  gate: The backup was asked for.\n  needs: backup-asked",
            "the backup has to be known before it is asked for",
            "Gate 'asked' needs backup-asked, and nothing before it supplies that."
        ),
        new(
            "a rebuild waits for a restore that nobody makes",
            "front-hot",
            "      - id: whole\n",
            "      - id: restored\n        gate: The data is back.\n        needs: restored\n      - id: whole\n",
            "Gate 'restored' needs restored, and nothing before it supplies that."
        ),
        Oddity.Before(
            "strap",
            "- id: was\n  gate: It is as it was.\n  needs: as-before",
            "it has to be as before when nothing has been done",
            "Gate 'was' needs as-before, and nothing before it supplies that."
        ),
        Oddity.Before(
            "light-off",
            "- id: dark\n  gate: The light is off.\n  needs: light-off\n  when: model.locator is not none",
            "everybody jumps over a gate",
            "No path leads to 'dark'."
        ),
    ];
}
