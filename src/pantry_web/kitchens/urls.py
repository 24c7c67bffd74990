"""Addresses of the house."""

from django.urls import path

from pantry_web.kitchens import views

urlpatterns = [
    path("house/", views.house, name="house"),
    path("house/away/", views.add_absence, name="add-absence"),
    path("house/away/<int:absence_id>/remove/", views.remove_absence, name="remove-absence"),
    path("house/hours/", views.hours, name="hours"),
    path("house/days/", views.add_changed_day, name="add-changed-day"),
    path(
        "house/days/<int:changed_id>/remove/", views.remove_changed_day, name="remove-changed-day"
    ),
    path("house/understood/", views.understood, name="understood"),
    path("house/clock/", views.set_clock, name="set-clock"),
]
