from django.db import migrations

LIMBS = {"left_hand": "left hand", "right_hand": "right hand", "left_leg": "left leg", "right_leg": "right leg"}


def sum_up(apps, schema_editor):
    """The strikes of entries that were kept before their sums were; their minutes stay unknown."""
    entries = apps.get_model("logbook", "LogEntry")
    changed = []
    for entry in entries.objects.select_related("result").defer("result__record").iterator(500):
        limbs = entry.result.expected_limbs
        expected = sum(limbs.values())
        counted = entry.counted_strikes
        share = counted / expected if counted is not None and expected else 1.0
        for field, limb in LIMBS.items():
            setattr(entry, field, share * limbs.get(limb, 0.0))
        changed.append(entry)
    entries.objects.bulk_update(changed, list(LIMBS), batch_size=500)


class Migration(migrations.Migration):
    dependencies = [("logbook", "0008_review")]
    operations = [migrations.RunPython(sum_up, migrations.RunPython.noop)]
