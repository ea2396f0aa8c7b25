"""Every entry points to the result of a run; runs, results and journals are made from what the entries held."""

import django.db.models.deletion
from django.db import migrations, models


def _run_of(apps, source):
    title = str((source.document or {}).get("title", ""))[:120]
    run, _ = apps.get_model("runs", "Run").objects.get_or_create(
        club=source.club,
        run_id=source.run_id,
        defaults={
            "session": source.session,
            "revision": source.session.revision if source.session else 1,
            "title": title,
            "document": source.document,
            "person": source.person,
        },
    )
    return run


def _with_reps(done):
    """As it is read today: rounds that were kept before reps were counted have none."""
    if done is None:
        return None
    return {**done, "rounds": [{"reps": None, "reps_asked": None, **one} for one in done["rounds"]]}


def make_runs(apps, schema_editor):
    Result = apps.get_model("runs", "Result")
    for entry in apps.get_model("logbook", "LogEntry").objects.select_related("session", "person"):
        entry.result = Result.objects.create(
            run=_run_of(apps, entry),
            place=entry.place,
            person=entry.person,
            record=entry.record,
            done=_with_reps(entry.done),
            lactic=entry.lactic,
            expected_limbs=entry.expected_limbs,
            expected_heights=entry.expected_levels,
            devices_simulated=entry.devices_simulated,
        )
        entry.save(update_fields=["result"])
    Run, Journal = apps.get_model("runs", "Run"), apps.get_model("runs", "Journal")
    for kept in apps.get_model("logbook", "RunJournal").objects.select_related("session"):
        run = Run.objects.filter(club=kept.club, run_id=kept.run_id).first()
        if run is None and kept.session is not None:
            session = kept.session
            kept.document, kept.person = session.document, session.person
            run = _run_of(apps, kept)
        if run is not None:
            Journal.objects.get_or_create(run=run, defaults={"events": kept.events})


class Migration(migrations.Migration):
    dependencies = [
        ("logbook", "0006_simulated_devices"),
        ("runs", "0001_runs"),
    ]

    operations = [
        migrations.AlterModelManagers(name="logentry", managers=[]),
        migrations.AddField(
            model_name="logentry",
            name="result",
            field=models.OneToOneField(
                null=True, on_delete=django.db.models.deletion.CASCADE, related_name="entry", to="runs.result"
            ),
        ),
        migrations.RunPython(make_runs, migrations.RunPython.noop),
        migrations.RunSQL("SET CONSTRAINTS ALL IMMEDIATE", migrations.RunSQL.noop),
        migrations.AlterField(
            model_name="logentry",
            name="result",
            field=models.OneToOneField(
                on_delete=django.db.models.deletion.CASCADE, related_name="entry", to="runs.result"
            ),
        ),
        migrations.RemoveConstraint(model_name="logentry", name="one_entry_per_run"),
        *[
            migrations.RemoveField(model_name="logentry", name=name)
            for name in (
                "run_id", "session", "person", "title", "document", "lactic", "expected_limbs", "expected_levels",
                "place", "record", "devices_simulated", "done",
            )
        ],
        migrations.DeleteModel(name="RunJournal"),
        # Where clocks stood is told anew every two seconds: nothing of it is worth keeping.
        migrations.RunSQL("DROP TABLE IF EXISTS floor_liverun", migrations.RunSQL.noop),
    ]
