"""Addresses of passage."""

from django.urls import path

from pantry_web.passage import calendars, views

urlpatterns = [
    path("dishes/<int:dish_id>/passage/", views.show, name="passage"),
    path("feasts/<int:feast_id>/passage/", views.show_all, name="feast-passage"),
    path("dishes/<int:dish_id>/passage/<slug:step_key>/", views.step, name="passage-step"),
    path("dishes/<int:dish_id>/passage/<slug:step_key>/move/", views.move, name="move-step"),
    path("dishes/<int:dish_id>/calendar.ics", calendars.calendar_file, name="calendar"),
]
