"""Addresses of passage."""

from django.urls import path

from pantry_web.passage import views

urlpatterns = [
    path("dishes/<int:dish_id>/passage/", views.show, name="passage"),
    path("dishes/<int:dish_id>/calendar.ics", views.calendar_file, name="calendar"),
]
