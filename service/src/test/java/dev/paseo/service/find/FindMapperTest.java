package dev.paseo.service.find;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class FindMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final FindMapper mapper = database.mapper(FindMapper.class);
    private final Rows rows = database.rows();
    private final long component = rows.component();
    private final String name = database.name("component", component);

    private Finds finds() {
        return new Finds(mapper);
    }

    private List<String> found(String text) {
        return finds().find(text, any -> true, true).stream().map(Finds.NamedThing::name).toList();
    }

    @Test
    void aComponentIsFoundByAPartOfItsNameAndThoseThatBeginSoComeFirst() {
        String tail = name.substring(3);
        assertTrue(mapper.components("%" + tail + "%", tail + "%").stream().anyMatch(row -> row.name().equals(name)));
        long longer = database.insert(
                "insert into component (name, file_path, main_branch, created_at) values (?, '', 'main', ?)",
                "a-" + name, Rows.NOON);
        assertEquals(List.of(name, database.name("component", longer)),
                mapper.components("%" + name + "%", name + "%").stream().map(FindMapper.NameRow::name).toList());
    }

    @Test
    void theNewestVersionsOfAComponentComeFirst() {
        long line = rows.line(component);
        long first = rows.version(component, line, 1);
        long second = rows.version(component, line, 2);
        database.change("update version set number = concat('7.', id) where component_id = ?", component);
        assertEquals(List.of("7." + second, "7." + first), mapper.versionsOf(name, "7.%", "7.").stream()
                .map(FindMapper.VersionRow::number).toList());
        database.change("update version set number = '7' where id = ?", first);
        assertEquals(List.of(name + " 7", name + " 7." + second), found(name + " 7"), "the very one comes first");
        database.change("update version set number = concat('7.', id) where component_id = ?", component);
        assertEquals(List.of(), mapper.versionsOf(name, "8.%", "8."));
        assertEquals(List.of(name + " 7." + second, name + " 7." + first), found(name + " 7."));
    }

    @Test
    void aRunACommitAndADeploymentAreFound() {
        long run = rows.run(component, rows.line(component));
        database.change("update run set commit_id = ?, commit_summary = 'Round up' where id = ?", "beef" + run, run);
        assertEquals(List.of(name + " #1"), found(name + "#1"));
        assertEquals(List.of(), found(name + "#2"));
        assertTrue(mapper.ofCommit("beef" + run + "%").stream().anyMatch(row -> row.component().equals(name)));
        Rows.Place place = rows.place();
        long version = rows.version(place.component(), rows.line(place.component()), 1);
        long deployment = rows.deployment(place.id(), version);
        assertEquals(List.of("deployment " + deployment), found("deployment " + deployment));
        assertEquals(Optional.empty(), mapper.deployment(deployment + 1_000_000));
    }

    @Test
    void anArtifactIsFoundByTheBeginningOfItsDigest() {
        long version = rows.version(component, rows.line(component), 1);
        String digest = "f" + new StringBuilder(rows.digest().substring(1)).reverse();
        database.insert("insert into version_artifact (version_id, name, file_name, digest, size) "
                + "values (?, 'app', 'a', ?, 1)", version, digest);
        List<String> sentences = finds().find(digest.substring(0, 20), any -> true, false).stream()
                .map(Finds.NamedThing::sentence).toList();
        assertTrue(sentences.stream().anyMatch(each -> each.startsWith("the artifact app of " + name)),
                sentences::toString);
    }

    /** What patterns are made of stands for itself, and nobody is told of what they may not see. */
    @Test
    void nothingElseIsFound() {
        assertEquals(List.of(), found("%"));
        assertEquals(List.of(), found(name.substring(0, 3) + "_" + name.substring(4)));
        assertEquals(List.of(), finds().find(name, other -> !other.equals(name), false));
        long account = rows.account();
        String who = database.name("account", account);
        assertEquals(List.of(who), found(who));
        assertEquals(List.of(), finds().find(who, any -> true, false));
    }
}
