package taxiomet.vet;

/** A kind of database server that may be asked to take the rules. */
public enum Server {
    POSTGRESQL("PostgreSQL"),
    MARIADB("MariaDB"),
    SQLITE("SQLite"),
    SQLSERVER("SQL Server"),
    ORACLE("Oracle");

    private final String title;

    Server(String title) {
        this.title = title;
    }

    /** Its name as its makers write it. */
    public String title() {
        return title;
    }

    /** The word that options use. */
    @Override
    public String toString() {
        return name().toLowerCase(java.util.Locale.ROOT);
    }
}
