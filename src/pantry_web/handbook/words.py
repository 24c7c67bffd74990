"""The words of the trade, as they are used here."""

from typing import NamedTuple


class Word(NamedTuple):
    """A word, and what it means here."""

    name: str
    meaning: str


WORDS = (
    Word(
        "Brine, pickle",
        "Water with salt in it, and often sugar and curing salt; the meat lies in it.",
    ),
    Word(
        "Cure",
        "All the salt, sugar and curing salt that goes in or on, and the time it takes.",
    ),
    Word(
        "Curing salt",
        "Salt with a little nitrite in it. It keeps meat pink and protects it; too much "
        "of it is poison. It is weighed, never spooned, and it is not pink rock salt.",
    ),
    Word(
        "Dry brine",
        "The salt one would season with anyway, put on hours or days ahead.",
    ),
    Word(
        "Edge, average, centre",
        "How salty the outermost layer is, the whole piece, and its middle.",
    ),
    Word(
        "Even brine",
        "A brine with just the salt that meat and water should have in the end: it can "
        "lie longer without getting too salty.",
    ),
    Word(
        "Green weight",
        "What the piece weighs raw and trimmed, before any salt. All shares are of it.",
    ),
    Word(
        "Ingoing ppm",
        "How much nitrite goes in, in milligrams for each kilogram of meat.",
    ),
    Word(
        "Lift",
        "Take the piece out of its brine or its bag.",
    ),
    Word(
        "Pump, needle",
        "Brine put in with a needle, as a share of the green weight.",
    ),
    Word(
        "Raw clock",
        "How long a piece may be kept raw in all, from the shop to the heat.",
    ),
    Word(
        "Rest",
        "Time after the cure, in which the salt evens out; or after the heat, in which "
        "the juices settle and the inside warms on.",
    ),
    Word(
        "Round",
        "A look at what lies in the fridge: turn it, stir, pour off what was drawn.",
    ),
    Word(
        "Salometer",
        "A brine’s strength, in percent of the strongest brine that there can be.",
    ),
    Word(
        "Score",
        "Cut the skin in lines, not the meat.",
    ),
    Word(
        "Soak",
        "Fresh water that takes salt back out of a piece that has become too salty.",
    ),
    Word(
        "Strong brine, timed",
        "Much saltier than the meat should be: it must come out on time.",
    ),
    Word(
        "Water phase",
        "The water in the meat: smoked fish is kept safe by how salty that is.",
    ),
)
