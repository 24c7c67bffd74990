"""Addresses of rounds."""

from django.urls import path

from pantry_web.rounds import views

urlpatterns = [
    path("dishes/<int:dish_id>/rounds/", views.rounds, name="rounds"),
    path("dishes/<int:dish_id>/rounds/turn/", views.tick_round, name="tick-round"),
    path("dishes/<int:dish_id>/rounds/undo/", views.take_back, name="undo"),
    path("dishes/<int:dish_id>/rounds/note/", views.note, name="note"),
    path("dishes/<int:dish_id>/rounds/begin/<slug:step_key>/", views.tick, name="tick"),
]
