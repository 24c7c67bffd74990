"""The shopping list on a page, as text, and as a table."""

import csv
from io import StringIO

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from pantry_web import clock
from pantry_web.kitchens.access import kitchen_of
from pantry_web.quantities import mass
from pantry_web.shopping.needs import Missing, shopping_list

FORMULA = ("=", "+", "-", "@", "\t", "\r")
"""What a spreadsheet would take for a formula at the beginning of a cell."""


def shopping(request: HttpRequest) -> HttpResponse:
    """The list."""
    listed = _listed(request)
    context = {
        "to_buy": [each for each in listed if not each.is_in_stock],
        "in_stock": [each for each in listed if each.is_in_stock],
    }
    return render(request, "shopping/shopping.html", context)


def shopping_text(request: HttpRequest) -> HttpResponse:
    """The list as plain text."""
    units = kitchen_of(request).units
    lines = [
        f"{_amount(each, units)}  {each.name}, by {_when(each)} ({', '.join(each.dishes)})"
        for each in _listed(request)
        if not each.is_in_stock
    ]
    text = "\n".join(lines or ["Nothing is missing."])
    return HttpResponse(f"{text}\n", content_type="text/plain; charset=utf-8")


def shopping_csv(request: HttpRequest) -> HttpResponse:
    """The list as a table: name, grams to buy, needed and in stock, by when, for which dishes."""
    table = StringIO()
    writer = csv.writer(table)
    writer.writerow(["name", "to_buy_g", "needed_g", "stock_g", "by", "dishes", "note"])
    for each in _listed(request):
        row = [
            each.name, _number(each.to_buy_g), _number(each.needed_g), _number(each.stock_g),
            each.by.local.isoformat(timespec="minutes"),
            "; ".join(each.dishes), each.note,
        ]  # fmt: skip
        writer.writerow([_harmless(cell) for cell in row])
    answer = HttpResponse(table.getvalue(), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="shopping.csv"'
    return answer


def _listed(request: HttpRequest) -> list[Missing]:
    kitchen = kitchen_of(request)
    return shopping_list(kitchen, clock.now(kitchen))


def _amount(each: Missing, units: str) -> str:
    return each.note if each.to_buy_g is None else mass(each.to_buy_g, units)


def _when(each: Missing) -> str:
    return f"{each.by.local:%a %-d %b, %H:%M}"


def _number(grams: float | None) -> str:
    return "" if grams is None else f"{grams:.2f}"


def _harmless(cell: str) -> str:
    return f"'{cell}" if cell.startswith(FORMULA) else cell
