namespace Nailcrow.Core.Tests.Procedures;

/// <summary>Changes that somebody could make with the best of intentions, and that lose data, a drive or a machine.</summary>
internal static class BrokenProcedures
{
    public static IReadOnlyList<Oddity> All => [.. Leave, .. Place, .. Serials, .. Waits, .. Things, .. Ends, .. Ways, .. Facts, .. Drives];

    private static readonly Oddity[] Leave =
    [
        new(
            "small machines are not asked whether they rebuild",
            "front-hot",
            "    needs: not-rebuilding\n",
            "    needs: not-rebuilding\n    when: model.bays is above 4\n",
            "'pull' pulls a drive and nobody has seen that the array is not rebuilding."
        ),
        new(
            "only a failed drive is looked at for what its array can spare",
            "front-hot",
            "    needs: pull-not-fatal\n",
            "    needs: pull-not-fatal\n    when: ticket.health is faulted\n",
            "'ask-lead' allows a pull and is reached from elsewhere"
        ),
        new(
            "a person is asked instead of the machine",
            "front-hot",
            "    gate: \"{array} is not rebuilding now.\"\n    needs: not-rebuilding\n    if-not: Wait for the rebuild to end. A pull now can lose the data.\n"
                + "    answers: { ask: ask-lead }\n",
            "    look: Is {array} rebuilding?\n    moves: nothing\n    answers: { \"yes\": not-rebuilding, \"no\": go on }\n",
            "'pull' pulls a drive and nobody has seen that the array is not rebuilding."
        ),
        Oddity.Before(
            "serial-in",
            "- id: second\n  do: Draw the drive of bay {bay} out.\n  records: drawn-out",
            "a second drive comes out while the first bay is empty",
            "'second' pulls a drive while another one is out."
        ),
        Oddity.Before(
            "put-away",
            "- id: second\n  do: Draw the drive of bay {bay} out.\n  records: drawn-out",
            "the same leave is used for a second pull",
            "'second' pulls a drive and nobody has seen that the array is not rebuilding."
        ),
        Oddity.Before(
            "mark-software",
            "- id: lunch\n  hold: Have lunch.\n  seconds: 2700",
            "lunch lies between the look and the pull",
            "pulls a drive"
        ),
        new(
            "the lead's word leads past the marks",
            "front-hot",
            "    with: [asset, array, bay, serial]\n    allows: pull\n",
            "    with: [asset, array, bay, serial]\n    allows: pull\n    then: pull\n",
            "before two marks have said that this is the bay"
        ),
        new(
            "in a hurry nobody asks what can be spared",
            "early",
            "    answers: { ask: ask-lead }\n    when: ticket.job is one of early, growth\n",
            "    answers: { ask: ask-lead, hurry: release }\n    when: ticket.job is one of early, growth\n",
            "'pull' pulls a drive that the array may not be able to spare"
        ),
    ];

    private static readonly Oddity[] Place =
    [
        Oddity.Before(
            "mark-lamp-inside",
            "- id: sure\n  look: Are you sure?\n  answers: { \"yes\": pull, \"no\": go on }",
            "who is sure needs no mark inside",
            "before two marks have said that this is the bay",
            "top-hot"
        ),
        new(
            "after a wrong drive the old marks are taken for good",
            "front-hot",
            "    when: answer.serial-out is different\n    then: mark-software\n",
            "    when: answer.serial-out is different\n    then: pull\n",
            "before two marks have said that this is the bay"
        ),
        new(
            "no mark is left and one pulls all the same",
            "front-hot",
            "    with: [asset, array, bay, serial]\n    then: put-back\n",
            "    with: [asset, array, bay, serial]\n    then: pull\n",
            "before two marks have said that this is the bay"
        ),
        new("every mark is the locator light", "front-hot", "    mark: own serial\n", "    mark: locator light\n", "'light-off'"),
        new(
            "the chassis that blinks is good enough where it has a light",
            "front-hot",
            "    needs: chassis-established\n",
            "    needs: chassis-established\n    when: model.locator is none\n",
            "No path leads to 'light-off'."
        ),
        new(
            "a lost chassis is no reason to stop",
            "front-hot",
            "    with: [asset, chassis-serial, location]\n    then: chassis-light\n",
            "    with: [asset, chassis-serial, location]\n    then: light-off\n",
            "before two marks have said that this is the machine"
        ),
    ];

    private static readonly Oddity[] Serials =
    [
        Oddity.Before(
            "mark-software",
            "- id: early-scan\n  scan: Scan the serial of the drive.\n  against: drive-out\n  records: pulled\n  answers: { different: put-back }",
            "the serial of what came out is read while it is in",
            "'early-scan' reads the serial of a drive that came out, and none is out."
        ),
        Oddity.Before(
            "strap",
            "- id: push-back\n  do: Push it back into bay {bay}.\n  records: put-back",
            "a drive is put back before any came out",
            "'push-back' puts back a wrong drive, and none is out."
        ),
        Oddity.Before(
            "mark-software",
            "- id: bare\n  do: Take the drive out of its carrier.\n  records: carrier-off",
            "a carrier is emptied that is still in its bay",
            "'bare' takes a drive from its carrier, and none is out."
        ),
        new(
            "a wrong drive in hand is handed over to somebody else",
            "front-hot",
            "    records: put-back\n    points-at: bay\n    when: answer.serial-out is different",
            "    records: put-back\n    not-so: handed-over\n    points-at: bay\n    when: answer.serial-out is different",
            "A wrong drive is out, and 'after' does something else than put it back."
        ),
        Oddity.Before(
            "put-back",
            "- id: picture\n  do: Make a picture of the label.\n  when: answer.serial-out is different",
            "a picture is to be made of a wrong drive that is back already",
            "No path leads to 'picture'."
        ),
        Oddity.Before(
            "put-back",
            "- id: breathe\n  hold: Count to ten.\n  seconds: 10\n  when: answer.serial-out is different",
            "a wait is for a wrong drive that is back already",
            "No path leads to 'breathe'."
        ),
        new(
            "a wrong drive stays out on machines with a cover",
            "top-hot",
            "    when: answer.serial-out is different and answer.no-mark-left is unanswered\n",
            "    when: answer.serial-out is different and model.loading is front\n",
            "A wrong drive is out"
        ),
    ];

    private static readonly Oddity[] Waits =
    [
        new(
            "a drive the machine uses already is eased out",
            "front-hot",
            "    then: nothing-foreign\n",
            "    then: again\n  - id: again\n    do: Ease the replacement out of bay {bay}.\n    records: unseated\n    then: nothing-foreign\n",
            "'again' takes out a drive that the machine has seen and may use; that is a pull ('records: drawn-out')."
        ),
        Oddity.Before(
            "insert",
            "- id: forth\n  do: Push the replacement into bay {bay}.\n  records: reseated\n- id: out-again\n"
                + "  do: Ease it out of bay {bay}.\n  records: unseated",
            "a drive is tried, eased out, and pushed home at once",
            "'insert' fills the bay without the model's wait after the pull"
        ),
        new(
            "the wait is for wrong drives",
            "front-hot",
            "    seconds: model.wait-after-pull\n  - id: serial-in\n",
            "    seconds: model.wait-after-pull\n    when: answer.serial-out is different\n  - id: serial-in\n",
            "without the model's wait after the pull"
        ),
        new(
            "a full minute is taken for any model's wait",
            "front-hot",
            "    seconds: model.wait-after-pull\n  - id: serial-in\n",
            "    seconds: 60\n  - id: serial-in\n",
            "without the model's wait after the pull"
        ),
        new(
            "a drive that sits badly is pushed home at once",
            "front-hot",
            "    hold: Leave it so for {wait-after-pull} seconds.\n    seconds: model.wait-after-pull\n",
            "    hold: Leave it so.\n    seconds: 3\n",
            "'seat-again' fills the bay without the model's wait after the pull"
        ),
        new(
            "a drive that sits badly is pushed home without being eased out",
            "front-hot",
            "answers: { seat-again: unseat }",
            "answers: { seat-again: seat-again }",
            "'seat-again' puts a drive into a bay that is not empty."
        ),
        Oddity.Before(
            "nothing-foreign",
            "- id: again\n  do: Ease the replacement out of bay {bay}.\n  records: unseated",
            "a step stands where nobody comes by",
            "No path leads to 'again'."
        ),
        Oddity.Before(
            "mark-software",
            "- id: try\n  do: Ease the drive out of bay {bay} a little.\n  records: unseated",
            "a drive is eased out to see whether it is the right one",
            "'try' takes the drive that was put in out again, and none is in."
        ),
        Oddity.Before(
            "put-away",
            "- id: twice\n  do: Push the replacement into bay {bay}.\n  records: inserted",
            "the replacement goes in twice",
            "'twice' puts a drive into a bay that is not empty."
        ),
    ];

    private static readonly Oddity[] Things =
    [
        new(
            "the case is never opened",
            "inside-off",
            "    opens: the case\n",
            "    opens: the lid\n",
            "'unplug' pulls a drive while the case is closed; somebody has to open it first ('opens: the case')."
        ),
        new(
            "the cover is opened after the pull",
            "top-hot",
            "  - use: open-up\n  - use: find-bay-inside\n  - use: pull-out\n",
            "  - use: find-bay-inside\n  - use: pull-out\n  - use: open-up\n",
            "'pull' pulls a drive while the cover is closed"
        ),
        new(
            "drawers of big machines stay shut",
            "several",
            "    opens: the drawer\n    when: model.loading is drawer\n",
            "    opens: the drawer\n    when: model.loading is drawer and model.bays is below 60\n",
            "'pull' pulls a drive while the drawer is closed"
        ),
        Oddity.Before(
            "part",
            "- id: panel\n  do: Lift the floor panel.\n  opens: the floor panel",
            "a floor panel is lifted and never laid again",
            "The end is reached with the floor panel not put right."
        ),
        Oddity.Before(
            "bezel-on",
            "- id: twice\n  do: Lift the floor panel.\n  opens: the floor panel\n- id: thrice\n  do: Lift it once more.\n"
                + "  moves: nothing\n  opens: the floor panel\n"
                + "- id: down\n  do: Lay it.\n  moves: nothing\n  closes: the floor panel",
            "one thing is opened twice",
            "'thrice' opens, switches on or slides out the floor panel a second time."
        ),
        Oddity.Before(
            "strap",
            "- id: down\n  do: Lay the floor panel.\n  closes: the floor panel",
            "something is closed that nobody opened",
            "'down' puts the floor panel right, which is not open, on or out here."
        ),
        Oddity.Before(
            "part",
            "- id: room\n  look: Is the room locked?\n  answers: { \"yes\": unlock, \"no\": part }\n- id: unlock\n  do: Unlock the room.\n  opens: the room",
            "a room that was locked is left open",
            "The end is reached with the room not put right."
        ),
        new(
            "the cover goes on where it is screwed only",
            "top-hot",
            "    closes: the cover\n    when: model.loading is top\n",
            "    closes: the cover\n    when: model.loading is top and model.screws is above 0\n",
            "The end is reached with the cover not put right."
        ),
        new(
            "the chassis is slid in before anybody slid it out",
            "top-hot",
            "    opens: the chassis\n",
            "    closes: the chassis\n",
            "which is not open, on or out here."
        ),
        new(
            "a lead takes over with the power off",
            "front-off",
            "    with: [asset, array, bay, serial]\n    then: put-back\n",
            "    with: [asset, array, bay, serial]\n    then: hand over\n",
            "The run is handed over with"
        ),
        new(
            "the light is switched on again at the end",
            "front-hot",
            "  - id: light-is-off\n",
            "  - id: blink\n    light: Switch the locator light on.\n    records: light-on\n    when: model.locator is not none\n  - id: light-is-off\n",
            "What stays shut: 'light-is-off'"
        ),
    ];

    private static readonly Oddity[] Ends =
    [
        new(
            "who has put a drive in goes home",
            "front-hot",
            "    answers: { seat-again: unseat }\n    then: nothing-foreign\n",
            "    answers: { seat-again: unseat, late: end }\n    then: nothing-foreign\n",
            "The end is reached without a rebuild seen to start."
        ),
        new("a swap says that nothing comes back", "growth", "comes-back: by-rebuild\n", "comes-back: cannot\n", "brings no new drive in"),
        new(
            "a gate that everybody has passed long ago stands at the end",
            "spare-stepped-in",
            "needs: spare-back",
            "needs: snapshot-before",
            "The end is reached without the new drive seen as spare."
        ),
        Oddity.Before(
            "part",
            "- id: wanted\n  look: Is anybody at home?\n  answers: { \"yes\": part, \"no\": leave }\n- id: leave\n  do: Go home.\n  then: end",
            "nobody is at home, and that is the end",
            "The end is reached without a rebuild seen to start."
        ),
        new(
            "a look at all bays is enough at the end",
            "front-hot",
            "    needs: snapshot-after\n",
            "    needs: seen-again\n",
            "The end is reached without a snapshot from after."
        ),
        new(
            "a plain swap says that the machine releases its drives first",
            "front-hot",
            "comes-back: by-rebuild\n",
            "comes-back: released-first\n",
            "The end is reached without every new drive looked at again."
        ),
        new(
            "a plain swap says that a spare stepped in",
            "front-hot",
            "comes-back: by-rebuild\n",
            "comes-back: spare-stepped-in\n",
            "The end is reached without the new drive seen as spare."
        ),
        new(
            "a plain swap says that nothing is swapped",
            "front-hot",
            "comes-back: by-rebuild\n",
            "comes-back: unchanged\n",
            "brings no new drive in"
        ),
        new(
            "the machine need not see the new drive before the next one goes",
            "several",
            "    needs: new-drive-seen\n",
            "    needs: snapshot-before\n",
            "The next drive is begun before the machine has seen the new one."
        ),
    ];

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

    private static readonly Oddity[] Drives =
    [
        new(
            "the serial to be emptied stands where it is seen and not where it is said",
            "front-hot",
            "onto bay {bay}, serial {part-serial}. Name both when it asks.\n            see: The screen says the rebuild runs.\n",
            "onto bay {bay}. Name both when it asks.\n            see: The screen says the rebuild of {part-serial} runs.\n",
            "'start' erases and its sentence does not name"
        ),
        Oddity.Before(
            "nothing-foreign",
            "- id: empty\n  do: Wipe the replacement on the management screen.\n  moves: nothing",
            "the replacement is wiped by the way",
            "'empty' says 'wipe' in 'do'"
        ),
    ];
}
