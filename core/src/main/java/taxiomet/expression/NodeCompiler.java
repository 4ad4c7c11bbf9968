package taxiomet.expression;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.function.ToIntFunction;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.Arithmetic;
import taxiomet.charter.Expression.Between;
import taxiomet.charter.Expression.Call;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.FunctionName;
import taxiomet.charter.Expression.In;
import taxiomet.charter.Expression.IsNull;
import taxiomet.charter.Expression.Joined;
import taxiomet.charter.Expression.Like;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Negation;
import taxiomet.charter.Expression.Not;
import taxiomet.charter.Expression.Or;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Expression.Type;

/**
 * Makes nodes of an expression over the columns of a batch. What it does not know, it leaves to the {@link Evaluator}: uuids, patterns that are no constants, and {@code coalesce} of exact and floating-point numbers, whose type is that of the
 * operand taken.
 */
final class NodeCompiler {
    private final ToIntFunction<Expression> places;

    private NodeCompiler(ToIntFunction<Expression> places) {
        this.places = places;
    }

    /**
     * The nodes of a condition; empty where a part of it is left to the evaluator.
     *
     * @param places gives the column of a batch in which the value of a leaf stands; -1 for one that has none
     */
    static Optional<TruthNode> condition(Expression condition, ToIntFunction<Expression> places) {
        try {
            return Optional.of(new NodeCompiler(places).truth(condition));
        } catch (Unknown e) {
            return Optional.empty();
        }
    }

    /** A part that is left to the evaluator. */
    private static final class Unknown extends Exception {
        private static final long serialVersionUID = 1;

        Unknown() {
            super(null, null, false, false);
        }
    }

    /** @param beside what gives a null its type */
    private Node node(Expression e, Type beside) throws Unknown {
        Type type = e.type() == Type.NULL ? beside : e.type();
        return switch (type) {
            case INTEGER, DECIMAL, NULL -> exact(e);
            case APPROXIMATE -> e.type() == Type.NULL ? exact(e) : real(e);
            case TEXT -> text(e);
            case BOOLEAN -> truth(e);
            case MOMENT, INSTANT, TIME -> moment(e);
            case UUID -> throw new Unknown();
        };
    }

    private Node[] nodes(List<Expression> all, Type beside) throws Unknown {
        Node[] nodes = new Node[all.size()];
        for (int i = 0; i < nodes.length; i++) {
            nodes[i] = node(all.get(i), beside);
        }
        return nodes;
    }

    private ExactNode exact(Expression e) throws Unknown {
        if (e instanceof Literal literal) {
            return new ExactNode.Constant((BigDecimal) literal.value());
        } else if (isLeaf(e)) {
            return new ExactNode.Column(placeOf(e));
        } else if (e instanceof Negation negation) {
            return new ExactNode.Negated(exact(negation.operand()));
        } else if (e instanceof Arithmetic a) {
            return new ExactNode.Reckoned(a.operator(), exact(a.left()), exact(a.right()), a.type() == Type.INTEGER);
        } else if (e instanceof Call call && call.function() == FunctionName.LENGTH) {
            return new ExactNode.Length(text(call.arguments().get(0)));
        } else if (e instanceof Call call && call.function() == FunctionName.COALESCE) {
            return new ExactNode.FirstOf(nodes(call.arguments(), e.type()));
        }
        throw new Unknown();
    }

    private DoubleNode real(Expression e) throws Unknown {
        if (e instanceof Literal literal) {
            return new DoubleNode.Constant((Double) literal.value());
        } else if (isLeaf(e)) {
            return new DoubleNode.Column(placeOf(e));
        } else if (e instanceof Negation negation) {
            return new DoubleNode.Negated(node(negation.operand(), e.type()));
        } else if (e instanceof Arithmetic a) {
            return new DoubleNode.Reckoned(a.operator(), node(a.left(), e.type()), node(a.right(), e.type()));
        }
        throw new Unknown();
    }

    private LongNode moment(Expression e) throws Unknown {
        if (e instanceof Literal literal) {
            if (literal.value() != null) {
                return new LongNode.Constant((Long) literal.value());
            }
            LongNode unknown = new LongNode.Constant(0);
            unknown.isNull = true;
            return unknown;
        } else if (isLeaf(e)) {
            return new LongNode.Column(placeOf(e));
        } else if (e instanceof Call call && call.function() == FunctionName.COALESCE) {
            return new LongNode.FirstOf(nodes(call.arguments(), e.type()));
        }
        throw new Unknown();
    }

    private TextNode text(Expression e) throws Unknown {
        if (e instanceof Literal literal) {
            TextNode constant = new TextNode.Constant(literal.value() == null ? "" : (String) literal.value());
            constant.isNull = literal.value() == null;
            return constant;
        } else if (isLeaf(e)) {
            return new TextNode.Column(placeOf(e));
        } else if (e instanceof Joined joined) {
            TextNode[] parts = new TextNode[joined.parts().size()];
            for (int i = 0; i < parts.length; i++) {
                parts[i] = text(joined.parts().get(i));
            }
            return new TextNode.Joined(parts);
        } else if (e instanceof Call call) {
            return switch (call.function()) {
                case LOWER -> new TextNode.Cased(text(call.arguments().get(0)), false);
                case UPPER -> new TextNode.Cased(text(call.arguments().get(0)), true);
                case TRIM -> new TextNode.Trimmed(text(call.arguments().get(0)));
                case COALESCE -> new TextNode.FirstOf(nodes(call.arguments(), e.type()));
                case LENGTH -> throw new Unknown();
            };
        }
        throw new Unknown();
    }

    private TruthNode truth(Expression e) throws Unknown {
        if (e instanceof Literal literal) {
            TruthNode constant = new TruthNode.Constant(Boolean.TRUE.equals(literal.value()));
            constant.isNull = literal.value() == null;
            return constant;
        } else if (isLeaf(e)) {
            return new TruthNode.Column(placeOf(e));
        } else if (e instanceof Compared c) {
            return new TruthNode.Compared(
                    c.comparator(),
                    node(c.left(), c.right().type()),
                    node(c.right(), c.left().type()));
        } else if (e instanceof And and) {
            return new TruthNode.Several(false, truths(and.all()));
        } else if (e instanceof Or or) {
            return new TruthNode.Several(true, truths(or.any()));
        } else if (e instanceof Not not) {
            return new TruthNode.Not(truth(not.condition()));
        } else if (e instanceof IsNull is) {
            return new TruthNode.IsNull(node(is.operand(), Type.NULL));
        } else if (e instanceof In in) {
            Type beside = typeAmong(in.operand(), in.list());
            return new TruthNode.In(node(in.operand(), beside), nodes(in.list(), beside));
        } else if (e instanceof Between between) {
            Type beside = typeAmong(between.operand(), List.of(between.low(), between.high()));
            return new TruthNode.Between(
                    node(between.operand(), beside), node(between.low(), beside), node(between.high(), beside));
        } else if (e instanceof Like like) {
            return like(like);
        } else if (e instanceof Call call && call.function() == FunctionName.COALESCE) {
            return new TruthNode.FirstOf(nodes(call.arguments(), e.type()));
        }
        throw new Unknown();
    }

    private static boolean isLeaf(Expression e) {
        return e instanceof ColumnValue || e instanceof ParentValue || e instanceof ChildrenValue;
    }

    private int placeOf(Expression leaf) throws Unknown {
        int place = places.applyAsInt(leaf);
        if (place < 0) {
            throw new Unknown();
        }
        return place;
    }

    /** The type of the first that has one. */
    private static Type typeAmong(Expression operand, List<Expression> others) {
        if (operand.type() != Type.NULL) {
            return operand.type();
        }
        return others.stream()
                .map(Expression::type)
                .filter(type -> type != Type.NULL)
                .findFirst()
                .orElse(Type.NULL);
    }

    private TruthNode[] truths(List<Expression> all) throws Unknown {
        TruthNode[] truths = new TruthNode[all.size()];
        for (int i = 0; i < truths.length; i++) {
            truths[i] = truth(all.get(i));
        }
        return truths;
    }

    private TruthNode like(Like like) throws Unknown {
        boolean isConstant = like.pattern() instanceof Literal
                && like.escape().map(Literal.class::isInstance).orElse(true);
        if (!isConstant) {
            throw new Unknown();
        }
        Object pattern = ((Literal) like.pattern()).value();
        Object escape = like.escape().map(e -> ((Literal) e).value()).orElse("");
        if (pattern == null || escape == null) {
            throw new Unknown();
        }
        return new TruthNode.Like(text(like.operand()), LikePattern.of((String) pattern, (String) escape));
    }
}
