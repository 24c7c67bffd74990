"""What is worked out beside the pages, and its answer."""

from django.db import models

from pantry_web.kitchens.models import Kitchen
from pantry_web.sentences import SentencesField


class Work(models.Model):
    """Something that a kitchen asked for: how far it is, and the answer once it is there.

    `about` names the thing that it is asked of: the last answer stands until there is a new one.
    Whoever works on it holds it on a lease and renews that; a lease that ran out means that the
    worker is gone.
    """

    class State(models.TextChoices):
        WAITING = "waiting"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="work")
    key = models.CharField(max_length=80)
    about = models.CharField(max_length=40, blank=True, default="")
    document = models.JSONField()
    state = models.CharField(max_length=8, choices=State, default=State.WAITING)
    attempts = models.PositiveSmallIntegerField(default=0)
    queued_at = models.DateTimeField()
    holder = models.UUIDField(null=True)
    leased_until = models.DateTimeField(null=True)
    progress = models.JSONField(default=dict)
    wants_stop = models.BooleanField(default=False)
    answer = SentencesField(null=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "key"], name="asked_once_in_a_kitchen")
        ]
        indexes = [
            models.Index(fields=["queued_at"]),
            models.Index(fields=["kitchen", "about", "queued_at"]),
        ]

    def __str__(self) -> str:
        return f"{self.key[:12]} {self.state}"
