"""Addresses of steps."""

from django.urls import path

from pantry_web.feasts.access import leads_to
from pantry_web.steps import job_mix, kept, ticking, views

urlpatterns = [
    path("dishes/<int:dish_id>/steps/", views.steps, name="steps"),
    path("dishes/<int:dish_id>/steps/hour/", views.hour, name="dish-hour"),
    path("dishes/<int:job_id>/made-of/", job_mix.job_mix, name="job-mix"),
    path("dishes/<int:job_id>/made-of/parts/", job_mix.parts, name="job-parts"),
    path("dishes/<int:job_id>/kept/<int:leftover_id>/", kept.use_kept, name="use-kept"),
    path("dishes/<int:dish_id>/steps/keep/", views.keep, name="keep-route"),
    path("dishes/<int:dish_id>/steps/take/", views.take, name="take-route"),
    path("dishes/<int:dish_id>/steps/add/", views.add, name="add-step"),
    path("dishes/<int:dish_id>/steps/form/<slug:step_key>/", views.form, name="step-form"),
    path("dishes/<int:dish_id>/steps/change/<slug:step_key>/", views.change, name="change-step"),
    path("dishes/<int:dish_id>/steps/forget/<slug:step_key>/", views.forget, name="forget-change"),
    path("dishes/<int:dish_id>/steps/remove/<slug:step_key>/", views.remove, name="remove-step"),
    path(
        "dishes/<int:dish_id>/rounds/",
        leads_to("steps"),
        name="old-rounds",
    ),
    path("dishes/<int:dish_id>/steps/turn/", ticking.tick_round, name="tick-round"),
    path("dishes/<int:dish_id>/steps/undo/", ticking.take_back, name="undo"),
    path("dishes/<int:dish_id>/steps/note/", ticking.note, name="note"),
    path("dishes/<int:dish_id>/steps/begin/<slug:step_key>/", ticking.tick, name="tick"),
    # Presses that a phone kept while the server was away may still go to these.
    path("dishes/<int:dish_id>/rounds/turn/", ticking.tick_round, name="old-tick-round"),
    path("dishes/<int:dish_id>/rounds/undo/", ticking.take_back, name="old-undo"),
    path("dishes/<int:dish_id>/rounds/note/", ticking.note, name="old-note"),
    path("dishes/<int:dish_id>/rounds/begin/<slug:step_key>/", ticking.tick, name="old-tick"),
]
