"""Addresses of weigh-up."""

from django.urls import path

from pantry_web.feasts.access import leads_to
from pantry_web.weighup import anything, chilling, first, views
from pantry_web.weighup.at_the_scale import label, left, weighing

urlpatterns = [
    path("first/", first.first_dish, name="first-dish"),
    path("weigh/", anything.weigh_anything, name="weigh-anything"),
    path("feasts/<int:feast_id>/dish/", views.new_dish, name="new-dish"),
    path("feasts/<int:feast_id>/answer/", views.answer, name="answer"),
    path("dishes/<int:dish_id>/mix/", views.weigh_up, name="weigh-up"),
    path(
        "dishes/<int:dish_id>/weigh-up/",
        leads_to("weigh-up"),
        name="old-weigh-up",
    ),
    path("dishes/<int:dish_id>/weighing/", weighing.weighing, name="weighing"),
    path("dishes/<int:dish_id>/weighing/undo/", weighing.take_back_line, name="take-back-line"),
    path("dishes/<int:dish_id>/weighing/trim/", weighing.trim, name="trim"),
    path("dishes/<int:dish_id>/weighing/left/", left.keep_for_the_freezer, name="keep-left"),
    path("left/<int:leftover_id>/label/", left.left_label, name="left-label"),
    path("dishes/<int:dish_id>/weighing/line/<path:line>/", weighing.tick_line, name="tick-line"),
    path("dishes/<int:dish_id>/cold/", chilling.cold, name="cold"),
    path("dishes/<int:dish_id>/label/", label.label, name="label"),
]
