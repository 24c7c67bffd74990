"""The ways of cooking, each as stages at the heat. Temperatures and words are common practice."""

from dataclasses import dataclass
from typing import Final, Literal

from pantry_core.heat.media import MediumName
from pantry_core.meat import Kind
from pantry_core.text import worded

HeatName = Literal[
    "roast", "roast-staged", "slow-oven", "simmer", "simmer-glaze", "braise", "braise-fry", "sear",
    "sear-oven", "stir-fry", "grill", "spit", "smoke", "smoke-simmer", "cold-smoke", "fry",
    "in-fat", "pressure", "poach", "steam", "bake", "none",
]  # fmt: skip
Place = Literal["hob", "oven", "smoker", "fire", "counter"]
Ends = Literal["inside", "tender", "time", "look"]
"""What a stage goes on until: a temperature, a fork that turns in it, the clock, or its look."""
Span = tuple[float, float, float]
"""Least, usual and most [h]."""


@dataclass(frozen=True, slots=True)
class HeatStage:
    """One stage: where, in what medium and how hot [°C], what it goes on until, and its words.

    `span_h` is how long it takes by practice: of a stage by the clock all of it, of one until
    tender what comes after it is hot through; `span_h_kg` is that for each kilo of a piece. `how`
    is what the hands do at its beginning, `look` what to see, hear and smell. Stages with
    `batch_g` take so much meat at a time. `is_main` is the one whose temperature the cook names,
    `kind` that of its step; `dried` says that its surface has been dried before.
    """

    id: str
    title: str
    place: Place
    ends: Ends
    how: str
    look: str = ""
    medium: MediumName | None = None
    medium_c: float = 0.0
    covered: bool = False
    span_h: Span = (0.0, 0.0, 0.0)
    span_h_kg: Span = (0.0, 0.0, 0.0)
    hands_min: float = 15.0
    attended: bool = False
    every_h: float | None = None
    tend: str = ""
    batch_g: float | None = None
    is_main: bool = False
    kind: str = "cook"
    dried: bool = False

    def __post_init__(self) -> None:
        """Its words may have figures in them."""
        for name in ("how", "look", "tend"):
            object.__setattr__(self, name, worded(getattr(self, name)))


@dataclass(frozen=True, slots=True)
class Heat:
    """A way of cooking: its stages, what it is right for and what it costs.

    `is_tender`: it makes a cut tender that needs it. Stages for poultry, fish and what has no
    curing salt stand beside the usual ones, where they differ.
    """

    id: HeatName
    name: str
    saying: str
    gives_up: str
    stages: tuple[HeatStage, ...]
    is_tender: bool = False
    bird: tuple[HeatStage, ...] | None = None
    fish: tuple[HeatStage, ...] | None = None
    uncured: tuple[HeatStage, ...] | None = None

    def __post_init__(self) -> None:
        """Its words may have figures in them."""
        for name in ("saying", "gives_up"):
            object.__setattr__(self, name, worded(getattr(self, name)))

    def stages_for(self, kind: Kind, *, is_cured: bool = False) -> tuple[HeatStage, ...]:
        """Its stages for a kind of meat."""
        if kind == "fish" and self.fish is not None:
            return self.fish
        if not is_cured and self.uncured is not None:
            return self.uncured
        if kind == "poultry" and self.bird is not None:
            return self.bird
        return self.stages

    @property
    def main(self) -> HeatStage | None:
        """The stage whose temperature the cook names, None where nothing is heated."""
        return next((each for each in self.stages if each.is_main), None)


def _oven(
    stage_id: str, title: str, c: float, how: str, look: str = "", *, ends: Ends = "inside",
    span_h: Span = (0.0, 0.0, 0.0), covered: bool = False, is_main: bool = False,
    hands_min: float = 15.0,
) -> HeatStage:  # fmt: skip
    return HeatStage(
        stage_id, title, "oven", ends, how, look, "oven", c, covered, span_h,
        hands_min=hands_min, is_main=is_main,
    )  # fmt: skip


def _pot(
    stage_id: str, title: str, c: float, how: str, look: str, *, ends: Ends = "inside",
    span_h: Span = (0.0, 0.0, 0.0), medium: MediumName = "water", is_main: bool = True,
    hands_min: float = 15.0,
) -> HeatStage:  # fmt: skip
    return HeatStage(
        stage_id, title, "hob", ends, how, look, medium, c, span_h=span_h,
        hands_min=hands_min, is_main=is_main,
    )  # fmt: skip


def _roast(c: float, how: str, look: str) -> HeatStage:
    return _oven("roast", "Roast", c, how, look, is_main=True)


_MIN: Final = 1.0 / 60.0
_HOT_START = _oven(
    "roast-hot", "Roast hot", 230, "Oven as hot as {@230 °C}; dry the skin once more, salt it, put "
    "it in.", "The skin begins to blister.", ends="time", span_h=(20 * _MIN, 25 * _MIN, 30 * _MIN),
)  # fmt: skip
CRISP: Final = _oven(
    "crisp", "Crisp the skin", 230, "Oven up to {@230 °C}, near the top.",
    "The skin sounds hollow when tapped.", ends="look", span_h=(15 * _MIN, 20 * _MIN, 30 * _MIN),
    hands_min=5,
)  # fmt: skip
_SMOKE_LOW = HeatStage(
    "smoke-low", "Smoke, low", "smoker", "time", "Onto the racks, dry to the touch; thin smoke at "
    "{@60 °C}.", "The surface takes on colour; the smoke is thin and blue, not white.", "smoker",
    60, span_h=(1.0, 1.5, 2.0), hands_min=20, every_h=1.0, tend="Look to the fire, add wood",
)  # fmt: skip


def _smoke_hot(c: float, how: str, *, dried: bool = False) -> HeatStage:
    return HeatStage(
        "smoke-hot", "Smoke, hotter", "smoker", "inside", how,
        "Mahogany outside; the probe in the thickest part tells.", "smoker", c,
        span_h=(1.0, 1.5, 2.5), span_h_kg=(2.2, 2.75, 3.3), hands_min=10, every_h=1.0,
        tend="Top up the fire; spritz or baste", is_main=True, dried=dried,
    )  # fmt: skip


_SIMMER = _pot(
    "simmer", "Simmer", 88, "Cover with fresh cold water, bring it up slowly, keep it barely "
    "moving; skim.", "A bubble now and then.", ends="tender", span_h=(0.5, 1.0, 1.75),
)  # fmt: skip
_BRAISE = _oven(
    "braise", "Braise", 150, "Brown it all over on the hob, half cover it with liquid, lid on, "
    "oven at {@150 °C}.", "The liquid shivers; it does not boil.", ends="tender", covered=True,
    span_h=(1.0, 1.75, 2.5), is_main=True, hands_min=20,
)  # fmt: skip
_COAT = HeatStage(
    "coat", "Coat and rest", "counter", "time", "Dip, dredge, and let the coat rest on a rack.",
    "The coat looks damp, not floury.", span_h=(30 * _MIN, 30 * _MIN, 45 * _MIN), hands_min=20,
    kind="coat",
)  # fmt: skip
_LOOK_H: Final = (2 * _MIN, 3 * _MIN, 5 * _MIN)
VEGETABLES: Final = HeatStage(
    "vegetables", "Vegetables into the pot", "hob", "look", "Into the broth: roots first, greens "
    "last; the meat may rest beside it, covered.",
    "A knife slides into the roots.", "water", 95, span_h=(0.5, 0.75, 0.75),
)  # fmt: skip

HEATS: Final[dict[HeatName, Heat]] = {
    heat.id: heat
    for heat in (
        Heat("roast", "Roasted", "one heat, for what is tender by itself",
             "The skin is less crisp, and the meat less evenly done.",
             (_roast(180, "Oven at {@180 °C}; the probe goes into the thickest part, off the bone.",
                     "Brown and sizzling."),),
             bird=(_roast(190, "Skin side up, oven at {@190 °C}; the probe goes into the thickest "
                          "part, off the bone.",
                          "Brown all over."),)),
        Heat("roast-staged", "Roasted in stages", "hot, low, hot: for skin and crackling",
             "It is more work: three heats, and the oven to itself at the end.",
             (_HOT_START,
              _oven("roast", "Roast low", 150, "Oven down to {@150 °C}; water into the tray, not "
                    "on the skin.", "Even and pale brown.", ends="tender", span_h=(0.75, 1.25, 2.0),
                    is_main=True, hands_min=5),
              CRISP), is_tender=True),
        Heat("slow-oven", "Low and slow in the oven", "hours at {@140 °C}, for what must be tender",
             "It costs half a day of the oven.",
             (_oven("roast", "Roast low and slow", 140, "Oven at {@140 °C}, covered for the first "
                    "half.", "It shrinks from the bone; a fork turns in it.", ends="tender",
                    span_h=(1.0, 1.75, 3.0), is_main=True),), is_tender=True),
        Heat("simmer", "Simmered until tender", "barely moving water; the broth is kept",
             "You lose a crust.", (_SIMMER,), is_tender=True),
        Heat("simmer-glaze", "Simmered, then glazed", "from the pot into a hot oven",
             "The oven gets messy, and it takes half an hour.",
             (_pot("simmer", "Simmer", 82, "Cover with fresh cold water and keep it just short of "
                   "boiling.", "It steams and hardly moves.", ends="tender",
                   span_h=(0.5, 1.0, 1.75)),
              _oven("glaze", "Glaze", 200, "Skin off, score the fat, brush with the glaze, oven at "
                    "{@200 °C}.", "Dark and sticky, not black.", ends="look",
                    span_h=(0.5, 0.6, 0.75))), is_tender=True),
        Heat("braise", "Braised", "browned, covered in its liquid, until tender",
             "You lose pink slices.", (_BRAISE,), is_tender=True),
        Heat("braise-fry", "Braised, then fried crisp", "tender first, then crisp; its liquid is "
             "the sauce", "It costs an hour at the hob before the table.",
             (_BRAISE,
              HeatStage("reduce", "Reduce the sauce", "hob", "look", "Lift the meat out; boil the "
                        "liquid down, marinade and all.", "It coats a spoon.",
                        span_h=(0.33, 0.5, 0.75), hands_min=10),
              HeatStage("fry-crisp", "Fry crisp", "hob", "look", "Dry the pieces; a hot pan, "
                        "little fat, in batches.", "Deep brown edges.", "pan", 200,
                        span_h=(5 * _MIN, 8 * _MIN, 10 * _MIN), attended=True, batch_g=800)),
             is_tender=True),
        Heat("sear", "Seared", "minutes a side in a very hot pan", "It is not for thick pieces: "
             "brown outside long before they are done inside.",
             (HeatStage("sear", "Sear", "hob", "inside", "Dry it, pan smoking hot; turn it every "
                        "minute.", "A brown crust; it lets go of the pan.", "pan", 220,
                        span_h=_LOOK_H, hands_min=10, attended=True, batch_g=1000,
                        is_main=True),)),
        Heat("sear-oven", "Seared, then the hot oven", "a crust from the pan, the inside from the "
             "oven", "It fills the kitchen with smoke.",
             (HeatStage("sear", "Sear", "hob", "time", "Dry it, pan smoking hot; brown every face.",
                        "A brown crust all over.", "pan", 220,
                        span_h=(6 * _MIN, 8 * _MIN, 10 * _MIN), hands_min=15, attended=True,
                        batch_g=3000),
              _oven("roast", "Finish in the oven", 220, "Straight into an oven at {@220 °C}, the "
                    "probe in.", "It springs back when pressed.", is_main=True, hands_min=5))),
        Heat("stir-fry", "Fried very hot, in strips", "two to five minutes, in batches",
             "Nobody sits down: batch after batch, at the stove.",
             (HeatStage("stir-fry", "Fry in batches", "hob", "inside", "Pan or wok as hot as it "
                        "goes; one layer at a time, out again, the next.",
                        "Brown at the edges, nothing wet or pink.", "pan", 230, span_h=_LOOK_H,
                        hands_min=10, attended=True, batch_g=250, is_main=True),)),
        Heat("grill", "Grilled over coals", "chops, skewers, halves: minutes, turned",
             "It takes daylight and a cook at the fire.",
             (HeatStage("light", "Light the coals", "fire", "time", "Light them; wait for grey "
                        "ash.", "Grey all over, no flame.", span_h=(0.5, 0.5, 0.75),
                        hands_min=15, kind="light"),
              HeatStage("grill", "Grill", "fire", "inside", "Over the coals, turned every few "
                        "minutes; a cooler side for what flares.", "Charred at the edges only.",
                        "coals", 230, span_h=(5 * _MIN, 6 * _MIN, 8 * _MIN), hands_min=15,
                        attended=True, batch_g=3000, is_main=True))),
        Heat("spit", "On a spit over coals", "a whole animal or a big joint, turned for hours",
             "It costs a day: coals want topping up, all the time.",
             (HeatStage("light", "Light the coals", "fire", "time", "Light twice what you think it "
                        "takes; rake them to both ends.", "Grey all over, no flame.",
                        span_h=(0.75, 0.75, 1.0), hands_min=30, kind="light"),
              HeatStage("spit", "Turn on the spit", "fire", "inside", "Tie it fast, balance it, "
                        "turn it over the coals; the probe in the thickest part.",
                        "It browns slowly; you can hold a hand beside it for four seconds.",
                        "coals", 115, hands_min=30, every_h=0.5, tend="Top up the coals, baste",
                        is_main=True))),
        Heat("smoke", "Hot-smoked", "dried, then smoked until it is done",
             "It costs a night to dry the surface, and the smoker; through {10 to 54 °C} within 6 "
             "h.", (_SMOKE_LOW, _smoke_hot(110, "Up to {@110 °C}.")), is_tender=True,
             uncured=(_smoke_hot(120, "Onto the racks, dry to the touch; {@120 °C} from the start, "
                                 "for there is no curing salt in it."),),
             fish=(HeatStage("smoke-low", "Smoke, low", "smoker", "time", "Onto oiled racks, tacky "
                             "to the touch; smoke at {@50 °C}.", "It dries and takes on gold.",
                             "smoker", 50, span_h=(0.75, 1.0, 1.5), hands_min=20, dried=True),
                   _smoke_hot(85, "Up to {@85 °C}; in hotter smoke white beads come out.",
                              dried=True))),
        Heat("smoke-simmer", "Smoked, then into the pot", "smoke for the taste, water to finish",
             "You lose the dark crust.",
             (_SMOKE_LOW, _pot("simmer", "Simmer", 82, "Into hot water that hardly moves.",
                               "It steams and hardly moves.", ends="tender",
                               span_h=(0.5, 1.0, 1.75))), is_tender=True),
        Heat("cold-smoke", "Cold-smoked", "hours in smoke below {30 °C}; it cooks nothing",
             "There is no safety by heat: fish frozen against parasites and salted for it, or "
             "cured meat that is cooked later.",
             (HeatStage("cold-smoke", "Smoke, cold", "smoker", "time", "Thin smoke, never above "
                        "{30 °C}: a cold night, or ice in the tray.", "Dry, gold, and cool to the "
                        "touch.", "smoker", 22, span_h=(4.0, 6.0, 10.0), hands_min=20, every_h=1.0,
                        tend="Read the smoker: never above {30 °C}", is_main=True),
              _oven("roast", "Cook it", 120, "Oven at {@120 °C}, or sliced into a pan later.",
                    "", hands_min=5)),
             fish=(HeatStage("cold-smoke", "Smoke, cold", "smoker", "time", "Thin smoke, never "
                             "above {30 °C}: a cold night, or ice in the tray.",
                             "Dry, gold, and cool to the touch.", "smoker", 22,
                             span_h=(4.0, 6.0, 10.0), hands_min=20, every_h=1.0,
                             tend="Read the smoker: never above {30 °C}", is_main=True),)),
        Heat("fry", "Fried in a coat", "dipped, dredged, rested, fried in batches",
             "Fat splatters; stay at the pan.",
             (_COAT, HeatStage("fry", "Fry", "hob", "inside", "Fat at {@170 °C}, a third to half "
                               "of the pot; nothing dripping, lid at hand, never left.",
                               "Golden, and the fat grows quiet.", "fat", 170,
                               span_h=(4 * _MIN, 5 * _MIN, 6 * _MIN), hands_min=15, attended=True,
                               batch_g=750, is_main=True))),
        Heat("in-fat", "Slowly, under fat", "hours under fat at {88 °C}, then crisp or shredded",
             "It costs a day, and a litre of fat that is strained and kept cold.",
             (HeatStage("in-fat", "Under fat, slowly", "oven", "tender", "Wipe the cure off, cover "
                        "with melted fat, oven so that the fat is at {85 to 93 °C}.",
                        "A bubble now and then.", "fat", 88, span_h=(1.5, 2.25, 3.5),
                        is_main=True),
              _oven("crisp", "Crisp", 220, "Out of the fat, skin up, oven at {@220 °C}; or shred "
                    "it into a hot pan.", "Brown, and the skin crackles.", ends="look",
                    span_h=(0.25, 0.33, 0.5), hands_min=10)), is_tender=True),
        Heat("pressure", "Under pressure", "about an hour instead of three",
             "You cannot look or taste while it cooks.",
             (_pot("pressure", "Cook under pressure", 118, "Brown it; liquid to a third, the pot "
                   "never over two thirds full; full pressure.", "A steady hiss.", ends="tender",
                   span_h=(0.25, 0.4, 0.7), medium="pressure", hands_min=20),
              HeatStage("let-down", "Let it down", "hob", "tender", "Off the heat; let the "
                        "pressure fall by itself.", "The pin has dropped.",
                        span_h=(0.25, 0.25, 0.5), hands_min=5)), is_tender=True),
        Heat("poach", "Poached", "water or stock that trembles: fish, breasts, whole birds",
             "You lose a crust.",
             (_pot("poach", "Poach", 82, "Into stock at {@80 °C} or so; it never boils.",
                   "It trembles; firm to the finger."),),
             bird=(_pot("poach", "Poach", 88, "Into stock at {@88 °C} or so; it never boils.",
                        "It trembles; the juices run clear."),)),
        Heat("steam", "Steamed", "over boiling water, lid on", "You lose a crust.",
             (_pot("steam", "Steam", 100, "Over boiling water, lid on.", "It flakes, or is firm.",
                   medium="steam"),)),
        Heat("bake", "Baked", "pieces on a tray, in a hot oven", "You lose gravy.",
             (_roast(190, "In a tin, or on a tray and not touching, oven at {@190 °C}.",
                     "Brown and sizzling."),),
             fish=(_roast(190, "On a tray, not touching, oven at {@190 °C}.",
                          "Brown at its edge; it flakes."),)),
        Heat("none", "Not cooked", "raw-cured fish, pickles", "There is no safety by heat.",
             ()),
    )
}  # fmt: skip
