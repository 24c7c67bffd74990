"""Addresses of fire day."""

from django.urls import path

from pantry_web.fireday import views

urlpatterns = [
    path("fire/", views.fire_day, name="fire-day"),
    path("fire/rows/", views.rows, name="fire-rows"),
    path("fire/dishes/<int:dish_id>/help/", views.take_help, name="fire-help"),
]
