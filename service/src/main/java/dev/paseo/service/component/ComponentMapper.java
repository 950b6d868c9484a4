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

    record ComponentRow(long id, String name, @Nullable String repository, String filePath, String mainBranch,
            String summary, @Nullable Instant retiredAt) {}

    String COMPONENT = "select id, name, repository, file_path, main_branch, summary, retired_at from component ";

    record RuleRow(String pattern, boolean trusted) {}

    record HeadRow(String branch, String commitId, @Nullable Long pipelineFileId) {}

    @Select("select min(id) from component where repository = #{repository}")
    long firstOf(String repository);

    /** Those that are not retired. */
    @Select(COMPONENT + "where repository = #{repository} and retired_at is null order by id")
    List<ComponentRow> ofRepository(String repository);

    @Select("select distinct repository from component where repository is not null and retired_at is null order by "
            + "repository")
    List<String> repositories();

    @Insert("""
            insert into component (name, repository, file_path, main_branch, created_at)
            values (#{name}, #{repository}, #{filePath}, #{mainBranch}, #{at})""")
    int add(String name, @Nullable String repository, String filePath, String mainBranch, Instant at);

    @Select(COMPONENT + "where name = #{name}")
    Optional<ComponentRow> named(String name);

    @Select(COMPONENT + "where id = #{id}")
    ComponentRow byId(long id);

    @Select(COMPONENT + "order by name")
    List<ComponentRow> retiredToo();

    /** Those that are not retired. */
    @Select(COMPONENT + "where retired_at is null order by name")
    List<ComponentRow> all();

    @Select(COMPONENT + "where id = (select component_id from former_name where name = #{name})")
    Optional<ComponentRow> formerly(String name);

    @Select("select name from former_name where component_id = #{component} order by name")
    List<String> formerNames(long component);

    @Insert("insert into former_name (name, component_id) values (#{name}, #{component})")
    int addFormerName(String name, long component);

    @Delete("delete from former_name where name = #{name} and component_id = #{component}")
    int dropFormerName(String name, long component);

    @Update("update component set repository = #{now} where repository = #{before}")
    int moveRepository(String before, String now);

    @Update("update component set name = #{name}, file_path = #{filePath}, main_branch = #{mainBranch}, "
            + "triggers_file_id = null where id = #{id}")
    int change(long id, String name, String filePath, String mainBranch);

    @Delete("delete from branch_rule where component_id = #{component} and trusted = #{trusted}")
    int dropRules(long component, boolean trusted);

    @Delete("delete from component_source where component_id = #{component} and source_id = #{source}")
    int closeSource(long component, long source);

    @Update("update start_trigger set source = #{now} where source = #{before}")
    int renameSource(String before, String now);

    @Select(COMPONENT
            + "where name between #{first} and #{last} and (retired_at is null or exists (select 1 from place p "
            + "where p.component_id = component.id and p.live_deployment_id is not null)) order by name")
    List<ComponentRow> between(String first, String last);

    @Update("update component set summary = #{summary} where id = #{id} and summary <> #{summary}")
    int summarise(long id, String summary);

    @Insert("insert into branch_rule (component_id, pattern, trusted) values (#{component}, #{pattern}, #{trusted})")
    int addRule(long component, String pattern, boolean trusted);

    @Select("select id from component where id = #{component} for update")
    long lock(long component);

    @Select("select pattern, trusted from branch_rule where component_id = #{component} order by pattern")
    List<RuleRow> rules(long component);

    @Insert("insert into component_source (component_id, source_id, all_branches) values (#{component}, #{source}, "
            + "#{all}) "
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

    @Insert("insert into component_link (component_id, title, address, position) values (#{component}, #{title}, "
            + "#{address}, #{position})")
    int addLink(long component, String title, String address, int position);

    record LabelRow(String name, String value) {}

    @Select("select name, value from component_label where component_id = #{component} order by name")
    List<LabelRow> labels(long component);

    @Delete("delete from component_label where component_id = #{component}")
    int dropLabels(long component);

    @Insert("insert into component_label (component_id, name, value) values (#{component}, #{name}, #{value})")
    int addLabel(long component, String name, String value);

    @Select("select name from environment where not temporary and retired_at is null order by position, id")
    List<String> environments();

    /** What any agent offers. */
    @Select("select distinct t.offer from agent a, json_table(a.offers, '$[*]' columns (offer varchar(63) path "
            + "'$')) t where a.retired_at is null order by t.offer")
    List<String> offers();

    /** What each agent that runs stages offers, as a list. */
    @Select("select offers from agent where retired_at is null and host_id is null")
    List<String> stageOffers();

    record FormerRow(String name, String component) {}

    @Select("select f.name, c.name as component from former_name f join component c on c.id = f.component_id")
    List<FormerRow> allFormerNames();

    /** The file of a component's main branch. */
    @Select("""
            select h.pipeline_file_id from component c join head h on h.component_id = c.id and h.branch = c.main_branch
            where c.name = #{component} and c.retired_at is null and h.pipeline_file_id is not null""")
    Optional<Long> mainFile(String component);

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

    record NewHead(String branch, String commitId, @Nullable Long file) {}

    /** @param heads JSON: a list of {@link NewHead} */
    @Insert("""
            insert ignore into head (component_id, branch, commit_id, pipeline_file_id, seen_at)
            select #{component}, h.branch, h.commit_id, h.file, #{at} from json_table(#{heads}, '$[*]' columns
              (branch varchar(200) path '$.branch',
              commit_id varchar(64) path '$.commitId', file bigint path '$.file')) h""")
    int addHeads(long component, String heads, Instant at);

    /**
     * A row of something that components have many of.
     *
     * @param name  a pattern, a branch, a former name, a component, a title or a label
     * @param value whether it is trusted, the commit, whether all branches may, the address or the label's value
     */
    record ManyRow(long component, String what, String name, String value) {}

    /** Of all components that are not retired; of their branches the main one only. */
    @Select("""
            select m.* from component c join (
              select component_id as component, 'rule' as what, pattern as name, trusted as value, 0 as position from
                branch_rule
              union all select component_id, 'head', branch, commit_id, 0 from head
              union all select component_id, 'former', name, '', 0 from former_name
              union all select s.component_id, 'source', o.name, s.all_branches, 0 from component_source s
                join component o on o.id = s.source_id
              union all select component_id, 'link', title, address, position from component_link
              union all select component_id, 'label', name, value, 0 from component_label) m on m.component = c.id
            where c.retired_at is null and (m.what <> 'head' or m.name = c.main_branch)
            order by m.component, m.what, m.position, m.name""")
    List<ManyRow> many();

    /**
     * Components whose main branch has a file that is known to be sound without a look at it: nothing was wrong when it
     * was read, it uses no pieces, and its triggers are in force.
     */
    @Select("""
            select c.id from component c join head h on h.component_id = c.id and h.branch = c.main_branch
            join pipeline_file f on f.id = h.pipeline_file_id
            where c.retired_at is null and c.triggers_file_id = f.id and f.problems = '[]' and f.text not like '%like%'
            """)
    List<Long> sound();

    record TagRow(String tag, String commitId) {}

    @Select("select tag, commit_id from tag_head where component_id = #{component}")
    List<TagRow> gitTags(long component);

    @Insert("insert ignore into tag_head (component_id, tag, commit_id, seen_at) values (#{component}, #{tag}, "
            + "#{commit}, #{at})")
    int addTag(long component, String tag, String commit, Instant at);

    /** @param tags JSON: a list of {@link TagRow} */
    @Insert("""
            insert into tag_head (component_id, tag, commit_id, seen_at)
            select #{component}, t.tag, t.commit_id, #{at} from json_table(#{tags}, '$[*]' columns (tag varchar(200)
              path '$.tag', commit_id varchar(64) path '$.commitId')) t
            on duplicate key update commit_id = values(commit_id), seen_at = values(seen_at)""")
    int addTags(long component, String tags, Instant at);

    @Update("update tag_head set commit_id = #{commit}, seen_at = #{at} where component_id = #{component} and tag = "
            + "#{tag} and commit_id <> #{commit}")
    int moveTag(long component, String tag, String commit, Instant at);

    @Delete("delete from head where component_id = #{component} and branch = #{branch} and commit_id = #{before}")
    int dropHead(long component, String branch, String before);
}
