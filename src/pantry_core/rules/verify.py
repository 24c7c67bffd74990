"""What could not be looked up here: about forty figures, each for somebody to check by its source.

Each entry covers the rules that stand from memory; a test sees to it that none is left out.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fnmatch import fnmatchcase
from typing import Final

from pantry_core.rules.rule import Mark, Rule


@dataclass(frozen=True, slots=True)
class ToVerify:
    """A published figure that stands from memory: where it is, what it says in our words.

    `rules` are the ids that rest on it, with * for any ending; `arithmetic` how another published
    figure comes to the same, "" where none was found.
    """

    document: str
    section: str
    says: str
    rules: tuple[str, ...]
    arithmetic: str = ""

    def covers(self, rule: Rule) -> bool:
        """Whether a rule rests on this entry."""
        return any(fnmatchcase(rule.id, pattern) for pattern in self.rules)


_CFR, _CODE = "9 CFR", "FDA Food Code"
_A, _B = "FSIS Appendix A", "FSIS Appendix B"
_DIRECTIVE = "FSIS Directive 7620.3"
_USDA = "USDA consumer advice"
_FISH = "FDA Fish and Fishery Products Hazards and Controls Guidance"

TO_VERIFY: Final = (
    ToVerify(_CFR, "424.21(c), curing agents", "Nitrite: 2 lb in 100 gallons of pickle at a pump "
             "of 10 %, a quarter of an ounce in 100 lb of chopped meat.", ("us-brine", "us-ground"),
             "2 lb in 1,000 lb of pickle at 10 % is 200 ppm; 7.09 g in 45.36 kg is 156 ppm."),
    ToVerify(_CFR, "424.21(c), curing agents", "Nitrate: 7 lb in 100 gallons of pickle, 3½ oz in "
             "100 lb dry cured, 2¾ oz in 100 lb chopped.",
             ("us-brine-nitrate", "us-dry-nitrate", "us-ground-nitrate"),
             "7 lb in 1,000 lb at 10 % is 700 ppm; 99.2 g in 45.36 kg 2,187; 77.96 g 1,718."),
    ToVerify(_CFR, "424.22(b)", "Bacon: 120 ppm of nitrite pumped or in a brine, 200 dry cured, no "
             "nitrate.", ("us-bacon-brine", "us-bacon-dry", "us-bacon-nitrate")),
    ToVerify(_CFR, "424.22(b)", "Bacon with its skin on: a tenth less nitrite.",
             ("us-bacon-brine-skin",), "120 less a tenth is 108 ppm."),
    ToVerify(_CFR, "424.22(b)", "Pumped bacon has 550 ppm of ascorbate or erythorbate.",
             ("bacon-ascorbate",)),
    ToVerify(_DIRECTIVE, "least nitrite", "Cured goods that are kept cold have 120 ppm or more.",
             ("us-*-enough",)),
    ToVerify(_DIRECTIVE, "cover pickle", "What lies in a cover pickle takes up a tenth of its "
             "weight.", ("pick-up",)),
    ToVerify("Regulation (EU) 2023/2108", "annex, nitrites", "80 mg/kg of nitrite as its ion.",
             ("eu-brine", "eu-dry", "eu-ground", "eu-bacon-brine", "eu-bacon-brine-skin",
              "eu-bacon-dry"), "80 · 69.00 / 46.01 is 120 mg/kg as sodium nitrite."),
    ToVerify("Regulation (EU) 2023/2108", "annex, nitrates", "Nitrate in goods that are not heated "
             "only.", ("eu-*-nitrate",)),
    ToVerify("Trade standard", "curing salts no. 1 and no. 2", "6.25 % of nitrite in both, 4 % of "
             "nitrate in no. 2.", ("nitrite-in-cure-*", "nitrate-in-cure-2"),
             "4 oz of no. 1 in 100 lb of meat: 113.4 g · 0.0625 / 45.36 kg is 156 ppm."),
    ToVerify("Labels", "nitrite salts in Europe", "0.4 to 0.9 % of nitrite.", ("nitrite-salt-*",)),
    ToVerify(_USDA, "cold storage; marinating", "Raw birds and fish 1 to 2 days in the fridge.",
             ("raw-bird-fish-caution",)),
    ToVerify(_USDA, "cold storage", "Raw red meat 3 to 5 days in the fridge.",
             ("raw-red-meat-caution",)),
    ToVerify(_USDA, "leftovers", "Leftovers and stock 3 to 4 days in the fridge.",
             ("leftovers", "stock-keeps")),
    ToVerify(_USDA, "safe temperatures", "Whole cuts 63 °C and 3 minutes of rest.",
             ("inside-whole",), "145 °F is 62.8 °C."),
    ToVerify(_USDA, "safe temperatures", "Ground meat, farmed rabbit and deer 71 °C.",
             ("inside-ground", "inside-rabbit", "inside-wild-deer"), "160 °F is 71.1 °C."),
    ToVerify(_USDA, "safe temperatures", "Birds 74 °C.", ("inside-poultry",), "165 °F is 73.9 °C."),
    ToVerify(_CODE, "3-401.11(A)", "Meat that is not intact: 63 °C held 3 min, 66 for 1 min, 68 "
             "for 17 s, 70 at once.", ("inside-not-intact*", "not-intact-at-*")),
    ToVerify(_CODE, "3-401.11(A)", "Stuffed meat, other game and ground game 74 °C.",
             ("inside-stuffed", "inside-other-game")),
    ToVerify(_CODE, "3-401.11(A)", "Fish 63 °C.", ("inside-fish",)),
    ToVerify(_FISH, "ch. 13", "Hot-smoked fish that is kept: 63 °C for 30 minutes.",
             ("smoked-fish-hold",)),
    ToVerify(_FISH, "ch. 13", "Salt in its water: 3.5 % vacuum-packed, 3.0 with nitrite, 2.5 in "
             "air.", ("smoked-vacuum", "smoked-vacuum-nitrite", "smoked-air")),
    ToVerify(_FISH, "ch. 7", "Histamine forms above 4.4 °C.", ("histamine-from",),
             "40 °F is 4.4 °C."),
    ToVerify(_A, "6.5-log column", "Minutes to hold at each temperature from 54.4 °C on.",
             ("hold-at-*",), "130 °F and 112 min, 140 °F and 12 min: tenfold in 10.3 °F."),
    ToVerify(_A, "poultry", "How long birds are held, rounded up to whole figures.",
             ("bird-at-*",), "140 °F and 36 min, 160 °F and half a minute."),
    ToVerify(_A, "come-up time", "No more than 6 hours between 10 and 54 °C.",
             ("smoke-warming", "warming-from", "warming-to"), "50 and 130 °F are 10 and 54.4 °C."),
    ToVerify(_CODE, "3-501.14", "From 57 to 21 °C in 2 hours, to 5 °C in 6 in all; stock as well.",
             ("cooling-from", "cooling-first-*", "cooling-second-stage", "cooling-all-hours",
              "stock-cools"), "135, 70 and 41 °F are 57.2, 21.1 and 5 °C."),
    ToVerify(_B, "cured whole pieces", "From 54 to 27 °C in 5 hours, to 7 in 15 in all, with "
             "100 ppm of nitrite.", ("cooling-cured-*",), "130, 80 and 45 °F: 54.4, 26.7, 7.2 °C."),
    ToVerify(_CODE, "3-402.11", "Fish that is eaten raw: frozen at −20 °C for 7 days, or at −35 °C "
             "until solid and for 15 hours.",
             ("parasites-frozen", "parasites-us-cold", "parasites-deep-*"), "−4 and −31 °F."),
    ToVerify("Regulation (EC) 853/2004", "annex III, parasites", "−20 °C for 24 hours, or heated "
             "to 60 °C for a minute.", ("parasites-eu-*", "parasites-killed")),
    ToVerify(_USDA, "The Big Thaw", "24 hours in the fridge for each 4 to 5 lb.",
             ("thaw-fridge", "thaw-least"), "24 h for 4 lb are 13.2 h a kilogram."),
    ToVerify("Extension services", "garlic and herbs in oil", "At 4 °C or below, up to 4 days.",
             ("herbs-in-oil",)),
    ToVerify(_USDA, "refrigeration", "A fridge at 4 °C or below.", ("fridge-goal", "fridge-quiet"),
             "40 °F is 4.4 °C."),
    ToVerify(_CODE, "3-501.16", "Cold food at 5 °C or below.", ("fridge-stop",), "41 °F is 5 °C."),
    ToVerify(_USDA, "danger zone", "2 hours between 4 and 60 °C; 1 hour above 32 °C.",
             ("two-hours", "one-hour-hot", "hot-kitchen", "kept-warm", "warm-box"),
             "40, 140 and 90 °F are 4.4, 60 and 32.2 °C."),
    ToVerify(_USDA, "power out", "A closed fridge keeps 4 hours.", ("closed-fridge",)),
    ToVerify(_USDA, "kitchen thermometers", "A good one is right within 1 °C.",
             ("thermometer-right",)),
    ToVerify("Salometer tables", "saturated brine", "26.4 % of salt at 15.6 °C.", ("saturation",),
             "35.9 g in 100 g of water (CRC Handbook, 20 °C) is 26.4 %."),
    ToVerify("USDA National Nutrient Database", "by kind of meat", "Water of lean meat 74 %, fish "
             "70, vegetables 92; for documents that name no cut.",
             ("water-in-meat", "water-in-fish", "water-in-vegetable"),
             "Cuts have the table's own figures."),
    ToVerify("Food engineering tables", "meat", "Density, conductivity and diffusivity of heat.",
             ("meat-density", "heat-diffusivity*", "heat-conductivity")),
    ToVerify("Heat transfer tables", "films", "Heat transfer of air, fat, water, coals, a pan.",
             ("film-*", "psychrometric")),
    ToVerify("Steam tables", "water", "Specific heats, heat of melting and of evaporation.",
             ("heat-of-*", "melting", "latent-heat")),
    ToVerify("Published diffusion studies", "salt in muscle at 4 °C", "1 to 4.5 · 10⁻¹⁰ m²/s.",
             ("diffusivity-*",)),
    ToVerify("Published studies of cured colour", "nitrite in meat", "40 ppm turn it pink; it "
             "halves in 3 to 15 days.", ("pink", "nitrite-half-life-*")),
)  # fmt: skip
"""The list, in the order in which it is worked through."""


def left_out(rules: Sequence[Rule]) -> Iterator[Rule]:
    """The rules from memory that no entry of the list covers."""
    for rule in rules:
        if rule.mark is Mark.MEMORY and not any(each.covers(rule) for each in TO_VERIFY):
            yield rule


def resting_on(entry: ToVerify, rules: Sequence[Rule]) -> tuple[Rule, ...]:
    """The rules from memory that rest on an entry."""
    return tuple(rule for rule in rules if rule.mark is Mark.MEMORY and entry.covers(rule))
