package taxiomet.survey;

/**
 * What a survey is to do.
 *
 * @param widestKey of how many columns a candidate key may be made
 * @param sample how many rows of each table are looked at, about; 0 for all. Keys that links may point at are read whole all the same
 * @param examples how many rows a finding about a key or link shows
 */
public record SurveyOptions(int widestKey, long sample, int examples) {}
