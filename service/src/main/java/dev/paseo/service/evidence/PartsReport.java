package dev.paseo.service.evidence;

import com.github.packageurl.MalformedPackageURLException;
import com.github.packageurl.PackageURL;
import dev.paseo.core.evidence.Parts;
import dev.paseo.core.evidence.Parts.Part;
import dev.paseo.core.text.Shortened;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads CycloneDX 1.2 to 1.7 (ECMA-424) in JSON or in XML as a stream, any number of files. The graph of dependencies
 * is passed over, so that cycles in it do no harm.
 */
final class PartsReport {

    static final int MOST_PARTS = 20_000;
    private static final int DEEPEST = 20;
    private static final int LONGEST_NAME = 300;
    private static final int MOST_LICENCES = 20;
    /** More white space than this does not stand before an element. */
    private static final int LOOKED_AT = 1024;

    private final JsonMapper json;
    private final List<Part> parts = new ArrayList<>();

    PartsReport(JsonMapper json) {
        this.json = json;
    }

    /** In XML where it begins as XML does. */
    void read(InputStream in) {
        BufferedInputStream file = new BufferedInputStream(in);
        if (beginsAsXml(file)) {
            Xml.read(file, new PartsInXml(this));
        } else {
            new PartsInJson(json, this).read(file);
        }
    }

    private static boolean beginsAsXml(BufferedInputStream file) {
        try {
            file.mark(LOOKED_AT);
            byte[] first = file.readNBytes(LOOKED_AT);
            file.reset();
            int at = first.length > 2 && first[0] == (byte) 0xEF ? 3 : 0;
            while (at < first.length && Character.isWhitespace(first[at])) {
                at++;
            }
            return at < first.length && first[at] == '<';
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    static void requireKnown(String version) {
        if (!version.matches("1\\.[2-7]")) {
            throw new UnreadableReport("is CycloneDX " + Shortened.to(version, 20) + "; 1.2 to 1.7 are read");
        }
    }

    /** @param depth of components within components */
    static void requireFlat(int depth) {
        if (depth > DEEPEST) {
            throw new UnreadableReport("has components within components, more than " + DEEPEST + " deep");
        }
    }

    /** Empty: it is not told. */
    void add(String group, String name, String version, String url, String licence) {
        String own = group.isEmpty() ? name : group + "/" + name;
        String shown = url.isEmpty() ? own : bare(url);
        if (!shown.isBlank() && parts.size() < MOST_PARTS) {
            parts.add(new Part(Shortened.to(shown, LONGEST_NAME), Shortened.to(version, 120), licence));
        } else if (parts.size() >= MOST_PARTS) {
            throw new UnreadableReport("has more than " + MOST_PARTS + " components");
        }
    }

    /** Without version, qualifiers and subpath, in canonical form. */
    static String bare(String url) {
        try {
            PackageURL whole = new PackageURL(url);
            return new PackageURL(whole.getType(), whole.getNamespace(), whole.getName(), null, null, null)
                    .canonicalize();
        } catch (MalformedPackageURLException wrong) {
            throw new UnreadableReport("has the package URL “" + Shortened.to(url, 100) + "”, which is none: "
                    + Shortened.to(String.valueOf(wrong.getMessage()), 100));
        }
    }

    /** What is told of a component's licences, each once. */
    static final class Licences {

        private final Set<String> all = new LinkedHashSet<>();

        void add(String licence) {
            if (all.size() < MOST_LICENCES) {
                all.add(Shortened.to(licence, LONGEST_NAME));
            }
        }

        String words() {
            return Shortened.to(String.join(", ", all), LONGEST_NAME);
        }
    }

    Parts parts() {
        return new Parts(parts);
    }
}
