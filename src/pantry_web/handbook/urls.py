"""The address of the handbook."""

from django.urls import path

from pantry_web.handbook import views

urlpatterns = [path("handbook/", views.handbook, name="handbook")]
