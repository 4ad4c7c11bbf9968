package taxiomet.testing;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import taxiomet.charter.Alike;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Comparison;
import taxiomet.charter.Condition;
import taxiomet.charter.DefaultValue;
import taxiomet.charter.Expression;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.IntRange;
import taxiomet.charter.Key;
import taxiomet.charter.Owner;
import taxiomet.charter.Rule;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.charter.Total;
import taxiomet.charter.place.DelimitedFiles;

/** A table of a test, declared and filled in place. */
public final class TestTable {
    private Optional<Owner> owner = Optional.empty();
    private final String name;
    private final List<Column> columns = new ArrayList<>();
    private Optional<Key> primary = Optional.empty();
    private final List<Key> unique = new ArrayList<>();
    private final List<ForeignKey> links = new ArrayList<>();
    private final List<Rule> rules = new ArrayList<>();
    private final List<Total> totals = new ArrayList<>();
    private final List<Alike> alike = new ArrayList<>();
    private List<String> label = List.of();
    private List<String> rows = List.of();
    private int batchSize = 2;

    private TestTable(String name) {
        this.name = name;
    }

    /** @param columns each a name, a type, and perhaps {@code not null}, {@code numbered} or {@code default X} */
    public static TestTable table(String name, String... columns) {
        TestTable table = new TestTable(name);
        for (String column : columns) {
            table.columns.add(column(column));
        }
        return table;
    }

    private static Column column(String declared) {
        int space = declared.indexOf(' ');
        String name = declared.substring(0, space);
        String rest = declared.substring(space + 1);
        Optional<String> byDefault = Optional.empty();
        int at = rest.indexOf(" default ");
        if (at >= 0) {
            byDefault = Optional.of(rest.substring(at + " default ".length()));
            rest = rest.substring(0, at);
        }
        boolean isRequired = rest.endsWith(" not null");
        boolean isNumbered = rest.endsWith(" numbered");
        String type = rest.replace(" not null", "").replace(" numbered", "");
        ColumnType parsed = ColumnType.parse(type).orElseThrow(() -> new IllegalArgumentException(type));
        return new Column(
                name,
                parsed,
                isRequired,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                Comparison.EXACT,
                Optional.empty(),
                false,
                byDefault.map(text -> DefaultValue.clock(text, parsed).orElse(new DefaultValue.Constant(text))),
                isNumbered ? Column.Generated.BY_DEFAULT : Column.Generated.NEVER,
                type.equals("integer"),
                false,
                false,
                Severity.ERROR);
    }

    /** Puts another column in the place of one. */
    public TestTable with(String column, UnaryOperator<Column> change) {
        columns.replaceAll(each -> each.name().equals(column) ? change.apply(each) : each);
        return this;
    }

    public TestTable key(String... names) {
        primary = Optional.of(Key.of(Key.PRIMARY, List.of(names), true));
        return this;
    }

    public TestTable unique(String key, String... names) {
        unique.add(Key.of(key, List.of(names), false));
        return this;
    }

    public TestTable unique(Key key) {
        unique.add(key);
        return this;
    }

    /** A link of one column, or of several with commas between them, written {@code a, b -> parent (c, d)}. */
    public TestTable link(String link, String ends) {
        return link(link, ends, ActionName.NO_ACTION, ActionName.NO_ACTION);
    }

    public TestTable link(String link, String ends, ActionName onDelete, ActionName onUpdate) {
        return link(link, ends, Match.SIMPLE, onDelete, onUpdate);
    }

    public TestTable link(String link, String ends, Match match, ActionName onDelete, ActionName onUpdate) {
        String[] parts = ends.split("\\s*->\\s*|\\s*\\(\\s*|\\s*\\)\\s*");
        links.add(new ForeignKey(
                link,
                name,
                List.of(parts[0].split("\\s*,\\s*")),
                parts[1],
                List.of(parts[2].split("\\s*,\\s*")),
                match,
                new Action(onDelete, List.of()),
                new Action(onUpdate, List.of()),
                Deferrable.NO,
                true,
                Optional.empty(),
                Optional.empty(),
                false,
                Severity.ERROR));
        return this;
    }

    /** Puts another link in the place of the last. */
    public TestTable with(UnaryOperator<ForeignKey> change) {
        links.set(links.size() - 1, change.apply(links.get(links.size() - 1)));
        return this;
    }

    public static ForeignKey children(ForeignKey of, String range) {
        return copy(of, of.deferrable(), IntRange.parse(range), of.isAcyclic());
    }

    public static ForeignKey acyclic(ForeignKey of) {
        return copy(of, of.deferrable(), of.children(), true);
    }

    public static ForeignKey deferrable(ForeignKey of, Deferrable when) {
        return copy(of, when, of.children(), of.isAcyclic());
    }

    private static ForeignKey copy(
            ForeignKey of, Deferrable deferrable, Optional<IntRange> children, boolean isAcyclic) {
        return new ForeignKey(
                of.name(),
                of.child(),
                of.columns(),
                of.parent(),
                of.parentColumns(),
                of.match(),
                of.onDelete(),
                of.onUpdate(),
                deferrable,
                of.isEnforced(),
                of.where(),
                children,
                isAcyclic,
                of.severity());
    }

    public TestTable where(Expression condition) {
        return with(link -> link.where(Optional.of(new Condition("a condition", condition))));
    }

    public TestTable rule(String rule, Expression condition) {
        rules.add(new Rule(rule, rule, condition, Severity.ERROR));
        return this;
    }

    public TestTable alike(Alike rule) {
        alike.add(rule);
        return this;
    }

    public TestTable total(String text, Expression value) {
        totals.add(new Total(text, value));
        return this;
    }

    public TestTable label(String... names) {
        label = List.of(names);
        return this;
    }

    /** Cells with bars between them, as {@link MemorySource} has them. */
    /** The column that names who decides about a row. */
    public TestTable owner(String column) {
        owner = Optional.of(new Owner.InColumn(column));
        return this;
    }

    public TestTable rows(String... all) {
        rows = Arrays.asList(all);
        return this;
    }

    /** How many rows come at a time; 2 unless it is said. */
    public TestTable inBatchesOf(int size) {
        batchSize = size;
        return this;
    }

    public String name() {
        return name;
    }

    public Table declared() {
        DelimitedFiles file =
                new DelimitedFiles(Path.of("."), name, ',', '"', "UTF-8", true, Optional.empty(), List.of());
        return new Table(
                name,
                Optional.empty(),
                file,
                columns,
                primary,
                unique,
                links,
                rules,
                alike,
                label,
                totals,
                Optional.empty(),
                owner);
    }

    public MemorySource source() {
        return new MemorySource(columns.stream().map(Column::name).toList(), rows, batchSize);
    }
}
