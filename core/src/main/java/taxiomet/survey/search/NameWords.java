package taxiomet.survey.search;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** The words that names of tables and columns are made of, in the languages that registers are kept in most, and what some of them say. */
public final class NameWords {
    private static final Set<String> KEY_WORDS =
            setOf("id key no nr num number code uuid guid ref fk cd ident identifier cod codigo numero"
                    + " nummer kennung schluessel schlüssel clave cle clé lfd seq pk");

    private static final Set<String> LEADING_KEY_WORDS = setOf("id cod code codigo num numero clave cle clé nr pk fk");

    /** Words for who stands above, beside or before in one table. */
    private static final Set<String> KINSHIP =
            setOf("parent mother father boss manager super supervisor chief leader previous prev next before"
                    + " after root origin original replaces replaced successor predecessor upper above main sponsor referrer ancestor master owner"
                    + " vorgesetzter chef mutter vater eltern ober vorgaenger vorgänger nachfolger leiter padre madre jefe superior anterior"
                    + " siguiente pere père mere mère precedent suivant capo precedente");

    /** Words that only say which one of several: from_place is a place. */
    private static final Set<String> WHICH = setOf(
            "from to source target origin destination old new first second third home main billing shipping"
                    + " start end departure arrival primary secondary current last final initial original other the by of in at for via"
                    + " von nach alt neu ziel ab an erste zweite de du des vers desde hasta origen destino da per il la le");

    /** Words for what is counted, weighed or paid: not for what is pointed at, nor for what tells rows apart. */
    private static final Set<String> AMOUNTS = setOf(
            "count counts amount amt sum total qty quantity unit price cost fee rate revenue percent pct ratio score"
                    + " points weight height width length depth size age pieces copies pages sheets seats capacity volume area distance speed"
                    + " temperature balance value tax discount duration"
                    + " anzahl menge betrag preis kosten summe gewicht höhe hoehe breite laenge länge tiefe groesse größe alter dauer stück stueck"
                    + " personen wert saldo rabatt nombre quantite quantité montant prix poids hauteur largeur duree durée"
                    + " cantidad importe precio peso altura ancho quantita quantità importo prezzo altezza durata");

    /** Words for when and how long: not for what is pointed at, but they may tell rows apart. */
    private static final Set<String> TIMES =
            setOf("year month week day days hour hours minute minutes second seconds date time period"
                    + " jahr monat woche tag tage stunden minuten annee année mois jour jours heures ano año mes dia dias horas minutos"
                    + " anno mese giorni ore minuti");

    /** Words for what somebody is to a thing. */
    private static final Set<String> ROLES =
            setOf("clerk adviser advisor author owner holder warden deputy keeper driver pilot teacher tutor"
                    + " doctor nurse agent buyer seller lender borrower reader writer editor inspector operator reporter requester approver"
                    + " assignee creator maker husband wife spouse partner child son daughter sibling leader head chair member captain mate host guest judge referee coach witness contact"
                    + " sachbearbeiter betreuer leiter lehrer arzt fahrer pruefer prüfer kaeufer käufer verkaeufer verkäufer autor besitzer vertreter"
                    + " responsable auteur conducteur medecin médecin gardien vendeur acheteur autor encargado conductor profesor vendedor"
                    + " responsabile autore medico");

    private static final Set<String> NO_ROLES =
            setOf("number order paper letter quarter water counter folder container layer color tier user"
                    + " parameter filter pointer chapter meter liter litre cover power center content document element department percent event"
                    + " semester register answer header footer error floor door sector factor vendor supplier");

    /** After the word for what was done. */
    private static final Set<String> BY = setOf("by von durch par por da");

    private static final Set<String> PEOPLE =
            setOf("person people employee staff personnel worker keeper member user customer client patient"
                    + " student teacher operator driver doctor agent contact party crew guest reader mitarbeiter mitglied kunde personal benutzer"
                    + " schueler schüler lehrer personne employe employé utilisateur adherent adhérent persona empleado usuario cliente socio"
                    + " dipendente utente");

    private static final Set<String> PERSON_NAMES =
            setOf("surname firstname lastname fullname forename birthday born birthdate vorname nachname"
                    + " geboren prenom prénom apellido apellidos nombres cognome");

    /** The words of names that were asked for: each is asked for again and again. */
    private static final Map<String, List<String>> KNOWN = new ConcurrentHashMap<>();

    private static final int MOST_KNOWN = 20_000;
    private static final List<String> PLURALS = List.of("s", "es", "e", "en", "n", "er", "x", "i", "se", "nen");
    private static final int LEAST_STEM = 3;

    private NameWords() {}

    /** As they are when taken from a name. */
    private static Set<String> setOf(String words) {
        Set<String> set = new HashSet<>();
        for (String word : words.split(" ", -1)) {
            set.add(singular(word));
        }
        return Set.copyOf(set);
    }

    /** Words of a name: keeper_id, keeperId and KEEPER-ID are keeper and id. */
    static List<String> of(String name) {
        List<String> words = KNOWN.get(name);
        if (words == null) {
            if (KNOWN.size() >= MOST_KNOWN) {
                KNOWN.clear();
            }
            words = part(name);
            KNOWN.put(name, words);
        }
        return words;
    }

    private static List<String> part(String name) {
        String parted = name.replaceAll("([\\p{Ll}0-9])(\\p{Lu})", "$1_$2").toLowerCase(Locale.ROOT);
        List<String> words = new ArrayList<>();
        for (String word : parted.split("[^\\p{L}\\p{N}]+", -1)) {
            if (!word.isEmpty()) {
                words.add(singular(word));
            }
        }
        return List.copyOf(words);
    }

    private static String singular(String word) {
        if (word.endsWith("ies") && word.length() > 4) {
            return word.substring(0, word.length() - 3) + "y";
        }
        boolean isPlural = word.length() > 3
                && word.endsWith("s")
                && !word.endsWith("ss")
                && !word.endsWith("us")
                && !word.endsWith("is");
        return isPlural ? word.substring(0, word.length() - 1) : word;
    }

    static boolean isOfKeys(String word) {
        return KEY_WORDS.contains(word);
    }

    /** Whether words name a key: their last is one for keys, or their first, where languages put it there. */
    static boolean nameKey(List<String> words) {
        return !words.isEmpty()
                && (KEY_WORDS.contains(words.get(words.size() - 1)) || LEADING_KEY_WORDS.contains(words.get(0)));
    }

    static boolean saysWhich(String word) {
        return WHICH.contains(word);
    }

    static boolean isOfKinship(String word) {
        return KINSHIP.contains(word);
    }

    /** Whether a word ends like one for somebody who does something. */
    static boolean mayBeOfRoles(String word) {
        return word.length() > 4
                && word.matches(".*(?:er|or|ist|eur|ant|ent)")
                && !AMOUNTS.contains(word)
                && !TIMES.contains(word)
                && !NO_ROLES.contains(word)
                && !WHICH.contains(word);
    }

    /** Whether the words say who did something: given by, signed by. */
    static boolean sayByWhom(List<String> words) {
        return words.size() > 1 && BY.contains(words.get(words.size() - 1));
    }

    static boolean isOfRoles(String word) {
        return ROLES.contains(word);
    }

    /** Whether a name is one of something counted, weighed or paid, and not of a key. */
    static boolean isAmount(List<String> words) {
        return words.stream().noneMatch(KEY_WORDS::contains) && words.stream().anyMatch(AMOUNTS::contains);
    }

    /** The same, or of a time. */
    static boolean isMeasure(List<String> words) {
        return isAmount(words)
                || (words.stream().noneMatch(KEY_WORDS::contains)
                        && words.stream().anyMatch(TIMES::contains));
    }

    /** Whether rows of a table are people, by its name or by the names that its columns hold. */
    static boolean isOfPeople(List<String> tableWords, List<List<String>> columns) {
        return tableWords.stream().anyMatch(PEOPLE::contains)
                || columns.stream()
                        .anyMatch(words -> PERSON_NAMES.contains(String.join("", words))
                                || words.stream().anyMatch(PERSON_NAMES::contains));
    }

    /** Whether two words are one, but for an ending that makes a plural. */
    static boolean areOne(String one, String other) {
        if (one.equals(other)) {
            return true;
        }
        String shorter = one.length() < other.length() ? one : other;
        String longer = one.length() < other.length() ? other : one;
        if (shorter.length() < LEAST_STEM) {
            return false;
        }
        return longer.startsWith(shorter) && PLURALS.contains(longer.substring(shorter.length()))
                || (shorter.length() == longer.length()
                        && shorter.length() > LEAST_STEM
                        && differInLastVowel(shorter, longer));
    }

    private static boolean differInLastVowel(String one, String other) {
        int last = one.length() - 1;
        String vowels = "aeio";
        return one.regionMatches(0, other, 0, last)
                && vowels.indexOf(one.charAt(last)) >= 0
                && vowels.indexOf(other.charAt(last)) >= 0;
    }

    /** Whether a word is a short form of another: cust of customer, dept of department. */
    static boolean isShortFor(String word, String whole) {
        if (word.length() < LEAST_STEM || word.length() + 2 > whole.length() || word.charAt(0) != whole.charAt(0)) {
            return false;
        }
        if (whole.startsWith(word)) {
            return true;
        }
        int at = 0;
        for (int i = 0; i < whole.length() && at < word.length(); i++) {
            at += whole.charAt(i) == word.charAt(at) ? 1 : 0;
        }
        // Consonants alone, or the first letters and some others: what keeps vowels is another word.
        boolean isSkeleton = word.chars().skip(1).noneMatch(c -> "aeiou".indexOf(c) >= 0)
                || whole.startsWith(word.substring(0, LEAST_STEM));
        return at == word.length() && isSkeleton;
    }

    /** A word without a word for keys that is glued to its end: custno is cust; the word itself where there is none. */
    static String withoutGluedKey(String word) {
        for (String ending : List.of("nummer", "number", "code", "key", "id", "nr", "no", "num", "cd", "cod")) {
            if (word.endsWith(ending) && word.length() - ending.length() >= LEAST_STEM) {
                return word.substring(0, word.length() - ending.length());
            }
        }
        return word;
    }
}
