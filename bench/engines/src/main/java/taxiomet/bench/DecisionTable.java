package taxiomet.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** A table of the standard decision-support set, as SQL needs to know it. */
record DecisionTable(String name, List<Column> columns, List<String> key, List<Link> links) {
    record Column(String name, String type, boolean isRequired) {}

    record Link(List<String> columns, String parent, List<String> parentColumns) {}

    /** Columns of the primary key and of all links. */
    List<String> keyColumns() {
        List<String> all = new ArrayList<>(key);
        links.forEach(link -> link.columns().stream().filter(c -> !all.contains(c)).forEach(all::add));
        return all;
    }

    private static DecisionTable of(String name, boolean isText, String columns, String key, String... links) {
        List<Column> all = new ArrayList<>();
        for (String column : columns.split(" *; *")) {
            String[] words = column.split(" ");
            String type = words[1].equals("K") ? isText ? "VARCHAR" : "INTEGER" : words[1];
            all.add(new Column(words[0], type, words.length < 3));
        }
        List<Link> pointing = new ArrayList<>();
        for (String link : links) {
            String[] words = link.split(" ");
            pointing.add(new Link(Arrays.asList(words[0].split(",")), words[1], Arrays.asList(words[2].split(","))));
        }
        return new DecisionTable(name, all, Arrays.asList(key.split(",")), pointing);
    }

    /** All tables, parents before their children. */
    static List<DecisionTable> all(boolean isText) {
        return List.of(
                of("region", isText, "r_regionkey K; r_name VARCHAR; r_comment VARCHAR null", "r_regionkey"),
                of(
                        "nation",
                        isText,
                        "n_nationkey K; n_name VARCHAR; n_regionkey K; n_comment VARCHAR null",
                        "n_nationkey",
                        "n_regionkey region r_regionkey"),
                of(
                        "part",
                        isText,
                        "p_partkey K; p_name VARCHAR; p_mfgr VARCHAR; p_brand VARCHAR; p_type VARCHAR; p_size INTEGER;"
                                + " p_container VARCHAR; p_retailprice DECIMAL(15,2); p_comment VARCHAR",
                        "p_partkey"),
                of(
                        "supplier",
                        isText,
                        "s_suppkey K; s_name VARCHAR; s_address VARCHAR; s_nationkey K; s_phone VARCHAR;"
                                + " s_acctbal DECIMAL(15,2); s_comment VARCHAR",
                        "s_suppkey",
                        "s_nationkey nation n_nationkey"),
                of(
                        "partsupp",
                        isText,
                        "ps_partkey K; ps_suppkey K; ps_availqty INTEGER; ps_supplycost DECIMAL(15,2);"
                                + " ps_comment VARCHAR",
                        "ps_partkey,ps_suppkey",
                        "ps_partkey part p_partkey",
                        "ps_suppkey supplier s_suppkey"),
                of(
                        "customer",
                        isText,
                        "c_custkey K; c_name VARCHAR; c_address VARCHAR; c_nationkey K; c_phone VARCHAR;"
                                + " c_acctbal DECIMAL(15,2); c_mktsegment VARCHAR; c_comment VARCHAR",
                        "c_custkey",
                        "c_nationkey nation n_nationkey"),
                of(
                        "orders",
                        isText,
                        "o_orderkey K; o_custkey K; o_orderstatus VARCHAR; o_totalprice DECIMAL(15,2); o_orderdate DATE;"
                                + " o_orderpriority VARCHAR; o_clerk VARCHAR; o_shippriority INTEGER; o_comment VARCHAR",
                        "o_orderkey",
                        "o_custkey customer c_custkey"),
                of(
                        "lineitem",
                        isText,
                        "l_orderkey K; l_partkey K; l_suppkey K; l_linenumber INTEGER; l_quantity DECIMAL(15,2);"
                                + " l_extendedprice DECIMAL(15,2); l_discount DECIMAL(15,2); l_tax DECIMAL(15,2);"
                                + " l_returnflag VARCHAR; l_linestatus VARCHAR; l_shipdate DATE; l_commitdate DATE;"
                                + " l_receiptdate DATE; l_shipinstruct VARCHAR; l_shipmode VARCHAR; l_comment VARCHAR",
                        "l_orderkey,l_linenumber",
                        "l_orderkey orders o_orderkey",
                        "l_partkey part p_partkey",
                        "l_suppkey supplier s_suppkey",
                        "l_partkey,l_suppkey partsupp ps_partkey,ps_suppkey"));
    }
}
