package dev.paseo.service.gate;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface RulingMapper {

    record RulingRow(String by, boolean yes, String comment, String subject, Instant at) {}

    @Insert("""
            insert into ruling (deployment_id, account_id, yes, comment, subject, at)
            values (#{deployment}, #{account}, #{yes}, #{comment}, #{subject}, #{at})""")
    int add(long deployment, long account, boolean yes, String comment, String subject, Instant at);

    @Select("""
            select a.name as `by`, r.yes, r.comment, r.subject, r.at from ruling r join account a on a.id = r.account_id
            where r.deployment_id = #{deployment} order by r.id""")
    List<RulingRow> of(long deployment);

    @Select("""
            select addresses from authorship
            where component_id = #{component} and from_commit = #{from} and to_commit = #{to}""")
    Optional<String> authors(long component, String from, String to);

    @Insert("""
            insert ignore into authorship (component_id, from_commit, to_commit, addresses)
            values (#{component}, #{from}, #{to}, #{addresses})""")
    int keepAuthors(long component, String from, String to, String addresses);

    @Select("select actor from trigger_event where component_id = #{component} and commit_id = #{commit} and kind = 'push'")
    List<String> pushers(long component, String commit);

    @Select("select address from version_author where version_id = #{version}")
    List<String> stated(long version);
}
