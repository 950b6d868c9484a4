package dev.paseo.service.component;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface ComponentMapper {

    record ComponentRow(long id, String name, @Nullable String repository, String filePath, String mainBranch, String summary) {}

    record RuleRow(String pattern, boolean trusted) {}

    record FileRow(long id, String commitId, String text, String problems) {}

    record HeadRow(String branch, String commitId, @Nullable Long pipelineFileId) {}

    @Select("select min(id) from component where repository = #{repository}")
    long firstOf(String repository);

    @Select("select id, name, repository, file_path, main_branch, summary from component where repository = #{repository} order by id")
    List<ComponentRow> ofRepository(String repository);

    @Select("select distinct repository from component where repository is not null order by repository")
    List<String> repositories();

    @Insert("""
            insert into component (name, repository, file_path, main_branch, created_at)
            values (#{name}, #{repository}, #{filePath}, #{mainBranch}, #{at})""")
    int add(String name, @Nullable String repository, String filePath, String mainBranch, Instant at);

    @Select("select id, name, repository, file_path, main_branch, summary from component where name = #{name}")
    Optional<ComponentRow> named(String name);

    @Select("select id, name, repository, file_path, main_branch, summary from component where id = #{id}")
    ComponentRow byId(long id);

    @Select("select id, name, repository, file_path, main_branch, summary from component order by name")
    List<ComponentRow> all();

    @Select("select id, name, repository, file_path, main_branch, summary from component where name between #{first} and #{last} order by name")
    List<ComponentRow> between(String first, String last);

    @Update("update component set summary = #{summary} where id = #{id} and summary <> #{summary}")
    int summarise(long id, String summary);

    @Insert("insert into branch_rule (component_id, pattern, trusted) values (#{component}, #{pattern}, #{trusted})")
    int addRule(long component, String pattern, boolean trusted);

    @Select("select pattern, trusted from branch_rule where component_id = #{component} order by pattern")
    List<RuleRow> rules(long component);

    @Insert("insert into component_source (component_id, source_id, all_branches) values (#{component}, #{source}, #{all}) "
            + "on duplicate key update all_branches = values(all_branches)")
    int openSource(long component, long source, boolean all);

    record SourceRow(String name, boolean allBranches) {}

    @Select("""
            select c.name, s.all_branches from component_source s join component c on c.id = s.source_id
            where s.component_id = #{component} order by c.name""")
    List<SourceRow> sources(long component);

    record LinkRow(String title, String address) {}

    @Select("select title, address from component_link where component_id = #{component} order by position")
    List<LinkRow> links(long component);

    @Delete("delete from component_link where component_id = #{component}")
    int dropLinks(long component);

    @Insert("insert into component_link (component_id, title, address, position) values (#{component}, #{title}, #{address}, #{position})")
    int addLink(long component, String title, String address, int position);

    record LabelRow(String name, String value) {}

    @Select("select name, value from component_label where component_id = #{component} order by name")
    List<LabelRow> labels(long component);

    @Delete("delete from component_label where component_id = #{component}")
    int dropLabels(long component);

    @Insert("insert into component_label (component_id, name, value) values (#{component}, #{name}, #{value})")
    int addLabel(long component, String name, String value);

    @Select("select name from environment where not temporary order by position, id")
    List<String> environments();

    /** What any agent offers. */
    @Select("select distinct t.offer from agent a, json_table(a.offers, '$[*]' columns (offer varchar(63) path '$')) t order by t.offer")
    List<String> offers();

    record FileHistoryRow(String commitId, String text, int problems, Instant readAt) {}

    /** Every text of the file that was seen, the newest first. */
    @Select("""
            select commit_id, text, json_length(problems) as problems, read_at from pipeline_file
            where component_id = #{component} order by id desc limit #{limit}""")
    List<FileHistoryRow> fileHistory(long component, int limit);

    @Insert("""
            insert ignore into pipeline_file (component_id, commit_id, text, problems, read_at)
            values (#{component}, #{commit}, #{text}, #{problems}, #{at})""")
    int keepFile(long component, String commit, String text, String problems, Instant at);

    @Select("select id, commit_id, text, problems from pipeline_file where component_id = #{component} and commit_id = #{commit}")
    Optional<FileRow> file(long component, String commit);

    @Select("select id, commit_id, text, problems from pipeline_file where id = #{id}")
    FileRow fileById(long id);

    @Select("select branch, commit_id, pipeline_file_id from head where component_id = #{component} order by branch")
    List<HeadRow> heads(long component);

    @Insert("""
            insert ignore into head (component_id, branch, commit_id, pipeline_file_id, seen_at)
            values (#{component}, #{branch}, #{commit}, #{file}, #{at})""")
    int addHead(long component, String branch, String commit, @Nullable Long file, Instant at);

    @Update("""
            update head set commit_id = #{commit}, pipeline_file_id = #{file}, seen_at = #{at}
            where component_id = #{component} and branch = #{branch} and commit_id = #{before}""")
    int moveHead(long component, String branch, String before, String commit, @Nullable Long file, Instant at);

    record TagRow(String tag, String commitId) {}

    @Select("select tag, commit_id from tag_head where component_id = #{component}")
    List<TagRow> gitTags(long component);

    @Insert("insert ignore into tag_head (component_id, tag, commit_id, seen_at) values (#{component}, #{tag}, #{commit}, #{at})")
    int addTag(long component, String tag, String commit, Instant at);

    @Update("update tag_head set commit_id = #{commit}, seen_at = #{at} where component_id = #{component} and tag = #{tag} and commit_id <> #{commit}")
    int moveTag(long component, String tag, String commit, Instant at);

    @Delete("delete from head where component_id = #{component} and branch = #{branch} and commit_id = #{before}")
    int dropHead(long component, String branch, String before);
}
