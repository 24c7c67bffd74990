"""Addresses of calendars that keep themselves up to date."""

from django.urls import path

from pantry_web.feeds import views

urlpatterns = [
    path("calendars/", views.feeds, name="feeds"),
    path("calendars/renew/", views.renew, name="renew-feed"),
    path("calendars/end/", views.end, name="end-feed"),
    path("calendars/<str:token>.ics", views.feed, name="feed"),
]
