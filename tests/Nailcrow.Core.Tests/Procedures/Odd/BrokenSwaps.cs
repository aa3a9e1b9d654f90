namespace Nailcrow.Core.Tests.Procedures;

/// <summary>A drive that is not compared, goes in too soon, or is emptied by the way.</summary>
internal static class BrokenSwaps
{
    public static IReadOnlyList<Oddity> All => [.. Serials, .. Waits, .. Drives];

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
            "    when: answer.serial-out is different and answer.no-mark-left is not refused\n",
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
            "answers: { seat-again: again-off,",
            "answers: { seat-again: seat-again,",
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
        new(
            "a drive is added to a bay that nobody looked into",
            "one-more",
            "needs: bay-empty",
            "needs: snapshot-before",
            "'insert' puts a drive into a bay that is not empty."
        ),
        new(
            "a drive is added to whichever bay",
            "one-more",
            "needs: bay-established",
            "needs: snapshot-before",
            "'insert' adds a drive before two marks have said that this is the bay."
        ),
        new(
            "a drive is added to whichever machine",
            "one-more",
            "      - use: find-machine\n",
            "",
            "'insert' adds a drive before two marks have said that this is the machine."
        ),
        new(
            "what is added stands beside what nobody named",
            "one-more",
            "      - id: serial-in\n",
            "      - id: old\n        look: Is {serial} beside it?\n        moves: nothing\n"
                + "        answers: { \"yes\": go on, \"no\": go on }\n      - id: serial-in\n",
            "'old' names the drive that comes out ({serial} or {name}); with 'comes-back: added' none does."
        ),
        new(
            "something comes out where a drive is only added",
            "one-more",
            "        records: inserted\n        points-at: bay\n",
            "        records: drawn-out\n        points-at: bay\n",
            "'insert' is about a drive that comes out; with 'comes-back: added' nothing does"
        ),
        Oddity.Before(
            "serial-in",
            "- id: empty\n  gate: Bay {bay} is empty.\n  moves: nothing\n  needs: bay-empty",
            "the bay is said to be empty, so that nobody has to read what came out of it",
            "'empty' needs an empty bay: a drive came out of it, and is read."
        ),
    ];
}
