"""Addresses of today."""

from django.urls import path

from pantry_web.today import views

urlpatterns = [
    path("", views.today, name="today"),
    path("today/calendar.ics", views.calendar_file, name="calendar-of-all"),
    path("worker.js", views.worker, name="worker"),
    path("today/visit/", views.tick_visit, name="tick-visit"),
    path("today/<int:dish_id>/note/", views.note, name="today-note"),
    path("today/<int:dish_id>/more/<slug:kind>/<slug:step_key>/", views.more, name="today-more"),
    path("today/<int:dish_id>/put-off/<slug:step_key>/", views.put_off_until, name="put-off"),
]
