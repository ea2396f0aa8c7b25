"""A club's stamp: the database renews it with everything that changes who its people are or what they have done.

What was worked out from them holds while the stamp is the same, in every process, whoever wrote. Each table whose
rows count says so in a migration of its own, by `renews_the_stamp`.
"""

from django.db.migrations import RunSQL


def renews_the_stamp(table: str, club: str) -> RunSQL:
    """Every row that comes, goes or changes renews its club's stamp; `club` is SQL for the club's id, of `the_row`.

    It is done as the transaction ends, so that no two of them wait for each other's club while they work.
    """
    name = f"renew_stamp_by_{table}"
    return RunSQL(
        f"""
        CREATE FUNCTION {name}() RETURNS trigger LANGUAGE plpgsql AS $$
        DECLARE the_row {table};
        BEGIN
          the_row := CASE TG_OP WHEN 'DELETE' THEN OLD ELSE NEW END;
          UPDATE accounts_club SET stamp = gen_random_uuid()
            WHERE id = ({club}) AND xmin <> pg_current_xact_id()::xid;
          RETURN NULL;
        END $$;
        CREATE CONSTRAINT TRIGGER {name} AFTER INSERT OR UPDATE OR DELETE ON {table}
          DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION {name}();
        """,
        f"DROP TRIGGER {name} ON {table}; DROP FUNCTION {name}();",
    )


RENEWS_ITS_OWN = RunSQL(
    """
    CREATE FUNCTION renew_stamp() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      NEW.stamp := gen_random_uuid();
      RETURN NEW;
    END $$;
    CREATE TRIGGER renew_stamp BEFORE UPDATE ON accounts_club FOR EACH ROW EXECUTE FUNCTION renew_stamp();
    """,
    "DROP TRIGGER renew_stamp ON accounts_club; DROP FUNCTION renew_stamp();",
)
"""A change of the club itself, its clock or its school, renews its stamp; one that was read before brings no old one
back."""
