"""Addresses of devices."""

from django.urls import path

from pantry_web.devices import views

urlpatterns = [
    path("devices/readings/", views.readings, name="device-readings"),
    path("devices/scale/", views.on_the_scale, name="on-the-scale"),
    path("house/devices/", views.devices, name="devices"),
    path("house/devices/check/", views.check, name="check-thermometer"),
    path("house/devices/<int:device_id>/revoke/", views.revoke, name="revoke-device"),
    path("house/devices/channels/<int:channel_id>/", views.set_channel, name="set-channel"),
]
