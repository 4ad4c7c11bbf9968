package taxiomet.charters.proposals;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import taxiomet.charters.input.InputFile;
import taxiomet.proposal.ProposalException;

/** Reads the files of a proposal that are plain text. */
final class ProposalText {
    private ProposalText() {}

    /** @throws ProposalException when the file is not there, cannot be read, or is not UTF-8 */
    static String of(Path file) {
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(InputFile.bytes(file)))
                    .toString();
            if (text.indexOf('\0') >= 0) {
                throw new ProposalException(
                        InputFile.name(file), "there is a NUL character in it, which no table can hold", "take it out");
            }
            return text;
        } catch (NoSuchFileException e) {
            throw new ProposalException(InputFile.name(file), "there is no such file", "check the path");
        } catch (CharacterCodingException e) {
            throw new ProposalException(InputFile.name(file), "the file is not text in UTF-8", "save it as UTF-8");
        } catch (IOException e) {
            throw unreadable(file, e);
        }
    }

    static ProposalException unreadable(Path file, IOException e) {
        return new ProposalException(InputFile.name(file), "the file cannot be read (" + e.getMessage() + ")", "");
    }
}
