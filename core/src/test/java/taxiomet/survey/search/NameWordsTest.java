package taxiomet.survey.search;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the words of a name say. */
class NameWordsTest {
    @ParameterizedTest
    @CsvSource({
        "keeper_id, keeper id",
        "keeperId, keeper id",
        "KEEPER-NO, keeper no",
        "Entries, entry",
        "Straßen_Nr, straßen nr",
        "address, address"
    })
    void a_name_is_taken_apart(String name, String words) {
        assertThat(NameWords.of(name)).isEqualTo(List.of(words.split(" ")));
    }

    @ParameterizedTest
    @CsvSource({
        "ort, orte, true",
        "fahrt, fahrten, true",
        "nave, navi, true",
        "calle, calles, true",
        "part, party, false",
        "no, nos, false",
        "line, lime, false"
    })
    void plurals_are_one_word(String one, String other, boolean areOne) {
        assertThat(NameWords.areOne(one, other)).isEqualTo(areOne);
        assertThat(NameWords.areOne(other, one)).isEqualTo(areOne);
    }

    @ParameterizedTest
    @CsvSource({
        "cust, customer, true",
        "dept, department, true",
        "acct, account, true",
        "cat, category, true",
        "date, department, false",
        "no, number, false",
        "customer, cust, false"
    })
    void short_forms_are_known(String word, String whole, boolean isShort) {
        assertThat(NameWords.isShortFor(word, whole)).isEqualTo(isShort);
    }

    @ParameterizedTest
    @CsvSource({
        "visitor_count, true",
        "total_pieces, true",
        "betrag, true",
        "Nights_amount, true",
        "amount_id, false",
        "visitor_id, false",
        "depot, false"
    })
    void amounts_are_told_from_keys(String name, boolean isAmount) {
        assertThat(NameWords.isAmount(NameWords.of(name))).isEqualTo(isAmount);
    }

    @ParameterizedTest
    @CsvSource({
        "keeper_id, true",
        "id_auteur, true",
        "cod_calle, true",
        "num_recibo, true",
        "idea, false",
        "name, false"
    })
    void keys_are_named_in_front_or_behind(String name, boolean isKey) {
        assertThat(KeyRanking.isNamedLikeKey(name)).isEqualTo(isKey);
    }

    @Test
    void glued_words_for_keys_are_taken_off() {
        assertThat(NameWords.withoutGluedKey("custno")).isEqualTo("cust");
        assertThat(NameWords.withoutGluedKey("kundennr")).isEqualTo("kunden");
        assertThat(NameWords.withoutGluedKey("paid")).isEqualTo("paid");
    }

    @Test
    void who_did_something_is_a_person() {
        assertThat(NameWords.sayByWhom(NameWords.of("given_by"))).isTrue();
        assertThat(NameWords.sayByWhom(NameWords.of("by"))).isFalse();
        assertThat(NameWords.mayBeOfRoles("grower")).isTrue();
        assertThat(NameWords.mayBeOfRoles("number")).isFalse();
    }
}
