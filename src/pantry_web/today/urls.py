"""Addresses of today."""

from django.urls import path

from pantry_web.today import views

urlpatterns = [
    path("", views.today, name="today"),
    path("worker.js", views.worker, name="worker"),
    path("today/visit/", views.tick_visit, name="tick-visit"),
    path("today/<int:dish_id>/note/", views.note, name="today-note"),
]
