package taxiomet.check.key;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Kind;
import taxiomet.check.pass.Plan;
import taxiomet.expression.RowFilter;
import taxiomet.finding.FindingKind;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.KeyIndex;

/** What primary and unique keys declare: no nulls, no duplicates. */
public final class KeyKinds implements Kind {
    private final Plan plan;
    private final KeyIndexes indexes;

    /** @param indexes gets the keys, which links may ask */
    public KeyKinds(Plan plan, KeyIndexes indexes) {
        this.plan = plan;
        this.indexes = indexes;
    }

    @Override
    public void plan(Table table) {
        table.primaryKey().ifPresent(key -> plan(table, key));
        table.uniqueKeys().forEach(key -> plan(table, key));
    }

    private void plan(Table table, Key key) {
        Optional<FaultLog> nulls = key.isPrimary()
                ? Optional.of(plan.log(FindingKind.NULL_IN_KEY, key.severity(), table, key.name(), key.columns()))
                : Optional.empty();
        FaultLog doubles = plan.log(FindingKind.DUPLICATE, key.severity(), table, key.name(), key.columns());
        List<KeyForm> forms = KeyForm.of(table, key);
        KeyIndex index =
                indexes.declared(table, key.columns(), forms, key.where().isEmpty());
        KeyEncoder encoder = new KeyEncoder(table.indexesOf(key.columns()), forms, plan.secret());
        plan.look(table, new KeyCheck(encoder, index, key.nullsAreEqual(), nulls, RowFilter.of(key.where())));
        RepeatedRows repeated = new RepeatedRows(
                encoder.copy(), index, doubles, key.nullsAreEqual(), RowFilter.of(key.where()), plan.spill());
        plan.lookAgain(table, repeated);
        plan.whenTold(repeated::close);
        doubles.tellAs(new DuplicatesTold(table, key.columns(), repeated));
    }
}
