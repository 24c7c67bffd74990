"""Addresses of feasts."""

from django.urls import path

from pantry_web.feasts import exchange_views, plan_views, views

urlpatterns = [
    path("feasts/", views.feasts, name="feasts"),
    path("plans/", plan_views.ask_plans, name="ask-plans"),
    path("feasts/new/", views.new_feast, name="new-feast"),
    path("feasts/in/", exchange_views.bring_in, name="bring-in"),
    path("feasts/own-day/", exchange_views.add_own_day, name="add-own-day"),
    path("feasts/own-day/<int:day_id>/", exchange_views.remove_own_day, name="remove-own-day"),
    path("feasts/<int:feast_id>/", views.feast, name="feast"),
    path("feasts/<int:feast_id>/feast.json", exchange_views.take_out, name="take-out"),
    path("feasts/<int:feast_id>/remove/", exchange_views.remove, name="remove-feast"),
    path("feasts/<int:removed_id>/take-back/", exchange_views.take_back, name="take-back-feast"),
    path("feasts/<int:feast_id>/copy/", exchange_views.copy, name="copy-feast"),
    path("feasts/<int:feast_id>/helps/", plan_views.what_helps, name="what-helps"),
    path("feasts/<int:feast_id>/helps/<slug:code>/", plan_views.take, name="take-remedy"),
    path("feasts/<int:feast_id>/solving/", plan_views.solving, name="solving"),
    path("feasts/<int:feast_id>/solving/stop/", plan_views.stop_solving, name="stop-solving"),
    path("feasts/<int:feast_id>/solving/again/", plan_views.try_again, name="try-again"),
    path("feasts/<int:feast_id>/keep/", plan_views.keep, name="keep-plan"),
    path("feasts/<int:feast_id>/afresh/", plan_views.afresh, name="plan-afresh"),
    path("feasts/<int:feast_id>/still/", plan_views.could_be_made, name="still"),
    path("feasts/<int:feast_id>/away/", plan_views.be_away, name="be-away"),
    path("feasts/<int:feast_id>/mishap/", plan_views.new_mishap, name="new-mishap"),
    path(
        "feasts/<int:feast_id>/mishap/<int:mishap_id>/back/",
        plan_views.mishap_back,
        name="take-back-mishap",
    ),
    path("feasts/<int:feast_id>/job/", plan_views.new_job, name="new-job"),
    path("feasts/<int:feast_id>/dishes/<int:dish_id>/out/", plan_views.leave_out, name="leave-out"),
    path("feasts/<int:feast_id>/dishes/<int:dish_id>/in/", plan_views.take_back_in, name="take-up"),
]
