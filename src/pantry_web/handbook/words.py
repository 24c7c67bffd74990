"""The words of the trade, as they are used here."""

from typing import NamedTuple

from pantry_core.text import say


class Word(NamedTuple):
    """A word, and what it means here."""

    name: str
    meaning: str


WORDS = (
    Word(
        say("Brine, pickle"),
        say("Water with salt in it, and often sugar and curing salt; the meat lies in it."),
    ),
    Word(
        say("Cure"),
        say("All the salt, sugar and curing salt that goes in or on, and the time it takes."),
    ),
    Word(
        say("Curing salt"),
        say(
            "Salt with a little nitrite in it. It keeps meat pink and protects it; too much "
            "of it is poison. It is weighed, never spooned, and it is not pink rock salt."
        ),
    ),
    Word(
        say("Dry brine"),
        say("The salt one would season with anyway, put on hours or days ahead."),
    ),
    Word(
        say("Edge, average, centre"),
        say("How salty the outermost layer is, the whole piece, and its middle."),
    ),
    Word(
        say("Even brine"),
        say(
            "A brine with just the salt that meat and water should have in the end: it can "
            "lie longer without getting too salty."
        ),
    ),
    Word(
        say("Green weight"),
        say("What the piece weighs raw and trimmed, before any salt. All shares are of it."),
    ),
    Word(
        say("Ingoing ppm"),
        say("How much nitrite goes in, in milligrams for each kilogram of meat."),
    ),
    Word(
        say("Lift"),
        say("Take the piece out of its brine or its bag."),
    ),
    Word(
        say("Pump, needle"),
        say("Brine put in with a needle, as a share of the green weight."),
    ),
    Word(
        say("Raw clock"),
        say("How long a piece may be kept raw in all, from the shop to the heat."),
    ),
    Word(
        say("Rest"),
        say(
            "Time after the cure, in which the salt evens out; or after the heat, in which "
            "the juices settle and the inside warms on."
        ),
    ),
    Word(
        say("Round"),
        say("A look at what lies in the fridge: turn it, stir, pour off what was drawn."),
    ),
    Word(
        say("Salometer"),
        say("A brine’s strength, in percent of the strongest brine that there can be."),
    ),
    Word(
        say("Score"),
        say("Cut the skin in lines, not the meat."),
    ),
    Word(
        say("Soak"),
        say("Fresh water that takes salt back out of a piece that has become too salty."),
    ),
    Word(
        say("Strong brine, timed"),
        say("Much saltier than the meat should be: it must come out on time."),
    ),
    Word(
        say("Water phase"),
        say("The water in the meat: smoked fish is kept safe by how salty that is."),
    ),
)
