package taxiomet.check;

import java.nio.file.Path;
import taxiomet.spill.MemoryBudget;

/**
 * What a check may use.
 *
 * @param temporary an existing folder for temporary files
 * @param budget for keys in memory; what gets no room goes to temporary files
 * @param threads how many work at once, at least 1
 */
public record Resources(Path temporary, MemoryBudget budget, int threads) {}
