namespace Nailcrow.Core.Tests.Procedures;

/// <summary>Changes that look odd and do no harm: who writes procedures is not to be taught to write around the proof.</summary>
internal static class SoundProcedures
{
    public static IReadOnlyList<Oddity> All => [.. Looks, .. Waits, .. Questions, .. Things, .. Words, .. Orders];

    private static readonly Oddity[] Looks =
    [
        Oddity.Before(
            "mark-bad",
            "- id: late\n  gate: It does not rebuild.\n  needs: not-rebuilding",
            "the rebuild is looked for once more with the drive out"
        ),
        Oddity.Before(
            "mark-software",
            "- id: late\n  gate: It does not rebuild.\n  needs: not-rebuilding",
            "the rebuild is looked for twice before the pull"
        ),
        Oddity.Before(
            "mark-software",
            "- id: spares\n  gate: It can spare it.\n  needs: pull-not-fatal",
            "what can be spared is asked for twice"
        ),
        new(
            "the bay has two marks and a third one for other machines",
            "front-hot",
            "    mark: label\n    points-at: bay\n",
            "    mark: label\n    points-at: bay\n    when: model.loading is top\n"
        ),
        new("a mark is written in large letters", "front-hot", "    mark: label\n", "    mark: LABEL\n"),
        new("a mark is written with two blanks", "front-hot", "    mark: bay lamp\n", "    mark: \"bay  lamp\"\n"),
        Oddity.Before(
            "mark-lamp",
            "- id: tape\n  look: Is the tape on bay {bay}?\n  records: bay-mark\n  mark: tape\n  answers: { \"yes\": go on, \"no\": go on }",
            "somebody put a tape on the bay"
        ),
        Oddity.Before(
            "chassis-serial",
            "- id: shown\n  look: Does the front display read {asset}?\n  records: chassis-mark\n  mark: front display\n"
                + "  answers: { \"yes\": go on, \"no\": go on }",
            "the front display is one more mark of the machine"
        ),
        Oddity.Before(
            "chassis-serial",
            "- id: place\n  look: Is it in the place of {location}?\n  records: chassis-mark\n  mark: rack place\n"
                + "  answers: { \"yes\": go on, \"no\": chassis-lost }",
            "the place in the rack is one more mark of the machine"
        ),
    ];

    private static readonly Oddity[] Waits =
    [
        Oddity.Before("mark-software", "- id: ahead\n  hold: Wait.\n  seconds: model.wait-after-pull", "one waits before the pull as well"),
        Oddity.Before(
            "mark-software",
            "- id: ten\n  hold: Let the fans settle.\n  seconds: 600",
            "ten minutes lie between the look and the pull"
        ),
        Oddity.Before("part", "- id: hours\n  hold: Have lunch.\n  seconds: 7200", "one has lunch before anything is looked at"),
        Oddity.Before(
            "serial-in",
            "- id: longer\n  hold: Wait a little longer.\n  seconds: 3600",
            "one waits an hour longer with the bay empty"
        ),
        Oddity.Before("put-away", "- id: rest\n  hold: Rest.\n  seconds: 5", "one rests before the drive is put away"),
        new(
            "the wait is told in hours to come",
            "front-hot",
            "    seconds: model.wait-after-pull\n  - id: serial-in\n",
            "    seconds: model.wait-after-pull\n  - id: more\n    hold: And again.\n    seconds: model.wait-after-pull\n  - id: serial-in\n"
        ),
        Oddity.Before(
            "unplug",
            "- id: cool\n  hold: Let the machine cool down.\n  seconds: 300",
            "a switched-off machine cools down",
            procedure: "inside-off"
        ),
    ];

    private static readonly Oddity[] Questions =
    [
        Oddity.Before(
            "strap",
            "- id: warm\n  read: How warm is the room?\n  unit: °C\n- id: window\n  do: Open a window.\n  when: answer.warm is above 30",
            "a window is opened on hot days"
        ),
        Oddity.Before(
            "strap",
            "- id: warm\n  read: How warm is the room?\n  unit: °C\n- id: pause\n  hold: Let it cool down.\n  seconds: 1200\n"
                + "  when: answer.warm is above 30 or answer.warm is below 0",
            "on hot days and on cold ones everybody waits before going in"
        ),
        Oddity.Before(
            "strap",
            "- id: rain\n  look: Does it rain?\n  answers: { \"yes\": go on, \"no\": sun }\n- id: coat\n  do: Take the coat off.\n- id: sun\n  do: Smile.",
            "one way is longer than the other"
        ),
        Oddity.Before(
            "strap",
            "- id: sure\n  look: May the work begin?\n  decides: lead\n  answers: { \"yes\": go on, \"no\": not-sure }\n- id: not-sure\n"
                + "  call: It may not begin yet.\n  with: [asset, sure]\n  then: back\n  when: answer.sure is no",
            "a lead decides when the work begins"
        ),
        Oddity.Before(
            "strap",
            "- id: dogs\n  look: How many dogs are there?\n  answers: { none: strap, one: calm, many: dog-call }\n- id: calm\n  do: Keep calm.\n  then: strap\n"
                + "- id: dog-call\n  call: Too many dogs.\n  with: [site, dogs]\n  then: strap",
            "an answer of three leads to three places"
        ),
        Oddity.Before(
            "mark-software",
            "- id: who\n  read: Who else is in the room?\n- id: tell\n  call: Say who is there.\n  with: [asset, who]\n  when: model.bays is above 24",
            "who is in the room goes along with a call on big machines"
        ),
        Oddity.Before(
            "strap",
            "- id: ready\n  look: Are you ready?\n  answers: { \"yes\": go on, \"no\": ready-soon }\n- id: ready-soon\n"
                + "  do: Get ready.\n  when: answer.ready is no\n  then: ready",
            "who is not ready is asked again"
        ),
        Oddity.Before(
            "light-on",
            "- id: many\n  do: Mind your head.\n  when: model.bays is at least 24 and model.bays is at most 60 or model.drawers is above 1",
            "one is told to mind one's head at some machines"
        ),
        Oddity.Before(
            "light-on",
            "- id: odd-one\n  do: Mind your head.\n  when: not (model.bays is below 24) and not model.bezel is none",
            "a condition says not twice"
        ),
    ];

    private static readonly Oddity[] Things =
    [
        new(
            "a floor panel is lifted and laid again on every way",
            "front-hot",
            "      - place: side-work\n",
            "      - id: panel\n        do: Lift the floor panel.\n        opens: the floor panel\n      - id: laid\n        do: Lay the floor panel.\n"
                + "        closes: the floor panel\n      - place: side-work\n"
        ),
        Oddity.Before(
            "strap",
            "- id: room\n  look: Is the room locked?\n  answers: { \"yes\": go on, \"no\": go on }\n- id: unlock\n  do: Unlock the room.\n  opens: the room\n"
                + "  when: answer.room is yes\n- id: lock\n  do: Lock the room behind you.\n  closes: the room\n  when: answer.room is yes",
            "a room is unlocked and locked where it was locked"
        ),
        Oddity.Before(
            "strap",
            "- id: lamp-on\n  do: Switch your head lamp on.\n  opens: the head lamp\n- id: lamp-off\n"
                + "  do: Switch your head lamp off.\n  closes: the head lamp\n"
                + "- id: lamp-on-again\n  do: Switch it on again.\n  opens: the head lamp\n- id: lamp-off-again\n  do: And off.\n  closes: the head lamp",
            "one thing is opened and closed twice"
        ),
        Oddity.Before(
            "strap",
            "- id: a\n  do: Open the gate.\n  opens: the gate\n- id: b\n  do: Open the door.\n  opens: the door\n- id: c\n  do: Close the gate.\n"
                + "  closes: the gate\n- id: d\n  do: Close the door.\n  closes: the door",
            "two things are closed in the order they were opened"
        ),
        Oddity.Before(
            "strap",
            "- id: quick\n  limit: Be done within a minute.\n  seconds: 60\n  until: strap",
            "one thing has to be done within a minute"
        ),
    ];

    private static readonly Oddity[] Words =
    [
        Oddity.Before("strap", "- id: say\n  do: Nobody pulls a drive before you say so.\n  moves: nothing", "nobody is to pull a drive"),
        Oddity.Before(
            "strap",
            "- id: say\n  do: NEVER PULL A DRIVE BY ITS LAMP.\n  moves: nothing",
            "nobody is to pull a drive, in capitals"
        ),
        Oddity.Before("strap", "- id: say\n  do: Schau dir das Laufwerk in {bay} an.\n  moves: nothing", "one step is in another language"),
        Oddity.Before(
            "strap",
            "- id: say\n  do: Erase the board beside {array}.\n  see: Nothing is left on it.\n  moves: nothing\n"
                + "  means: { erase: \"The board in the hall.\" }\n  not-so: strap",
            "a board is erased, and what that means is said"
        ),
        Oddity.Before(
            "strap",
            "- id: say\n  do: Pull the lever of bay {bay} up to its first stop.\n  moves: nothing\n"
                + "  means: { pull: \"The lever; the drive stays in its plug.\" }",
            "a lever is pulled, and what that means is said"
        ),
        Oddity.Before("strap", "- id: drive-there\n  do: Drive slowly past the gate.\n  moves: nothing", "somebody drives past a gate"),
        Oddity.Before("strap", "- id: bags\n  do: Take the bags out of the car.", "bags are taken out of a car"),
        Oddity.Before("strap", "- id: format\n  do: Read the format of the label aloud.", "a format is read aloud"),
        Oddity.Before("light-on", "- id: count-them\n  do: Count the drives that are lit.\n  moves: nothing", "lit drives are counted"),
    ];

    private static readonly Oddity[] Orders =
    [
        new(
            "a rebuild that was seen is enough between two drives",
            "several",
            "            needs: drive-joined\n",
            "            needs: rebuild-seen\n"
        ),
        new("the backup is asked for without a gate", "too-many-lost", "needs: restored", "needs: seen-again"),
        new("a title is long", "front-hot", "title: ", "title: On machines by the sea, and on all others as well, "),
        new("it is for big machines only", "front-hot", "applies-to: ", "applies-to: model.bays is above 12 and "),
        new("it is for machines of one power only", "early", "applies-to: ", "applies-to: model.swap is hot and "),
        new(
            "a release is needed by nobody",
            "front-hot",
            "    when: model.release is needed\n",
            "    when: model.release is needed or model.bays is above 12\n"
        ),
    ];
}
