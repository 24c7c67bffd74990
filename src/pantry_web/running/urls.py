"""Addresses for whoever watches over the program."""

from django.urls import path

from pantry_web.running import views

urlpatterns = [path("health/", views.health, name="health")]
