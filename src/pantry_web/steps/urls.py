"""Addresses of steps."""

from django.urls import path

from pantry_web.steps import kept, views

urlpatterns = [
    path("dishes/<int:dish_id>/steps/", views.steps, name="steps"),
    path("dishes/<int:dish_id>/steps/hour/", views.hour, name="dish-hour"),
    path("dishes/<int:job_id>/steps/parts/", views.parts, name="job-parts"),
    path("dishes/<int:job_id>/kept/<int:leftover_id>/", kept.use_kept, name="use-kept"),
    path("dishes/<int:dish_id>/steps/keep/", views.keep, name="keep-route"),
    path("dishes/<int:dish_id>/steps/take/", views.take, name="take-route"),
    path("dishes/<int:dish_id>/steps/add/", views.add, name="add-step"),
    path("dishes/<int:dish_id>/steps/form/<slug:step_key>/", views.form, name="step-form"),
    path("dishes/<int:dish_id>/steps/change/<slug:step_key>/", views.change, name="change-step"),
    path("dishes/<int:dish_id>/steps/forget/<slug:step_key>/", views.forget, name="forget-change"),
    path("dishes/<int:dish_id>/steps/remove/<slug:step_key>/", views.remove, name="remove-step"),
]
