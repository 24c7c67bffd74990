"""Addresses of fire day."""

from django.urls import path

from pantry_web.fireday import views

urlpatterns = [
    path("fire/", views.fire_day, name="fire-day"),
    path("fire/rows/", views.rows, name="fire-rows"),
]
