package taxiomet.survey;

/**
 * What a survey is to do.
 *
 * @param widestKey of how many columns a candidate key may be made
 * @param examples how many rows a finding about a key or link shows
 */
public record SurveyOptions(int widestKey, int examples) {}
