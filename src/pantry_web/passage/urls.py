"""Addresses of passage."""

from django.urls import path

from pantry_web.passage import views

urlpatterns = [
    path("dishes/<int:dish_id>/passage/", views.show, name="passage"),
    path("feasts/<int:feast_id>/passage/", views.show_all, name="feast-passage"),
    path("dishes/<int:dish_id>/calendar.ics", views.calendar_file, name="calendar"),
]
