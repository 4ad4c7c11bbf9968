/**
 * Files, whatever is in them: which ones a path names ({@link taxiomet.sources.file.FileParts}), how they are packed ({@link
 * taxiomet.sources.file.Packing}), in what encoding they are, and whether they changed since they were opened ({@link
 * taxiomet.sources.file.FileStamp}).
 */
package taxiomet.sources.file;
