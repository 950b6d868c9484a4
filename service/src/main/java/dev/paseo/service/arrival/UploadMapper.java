package dev.paseo.service.arrival;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface UploadMapper {

    /** A row to be inserted; gets its id. */
    final class NewUpload {
        long id;
        final long component;
        final String number;
        final long account;
        final String statement;
        final Instant at;

        NewUpload(long component, String number, long account, String statement, Instant at) {
            this.component = component;
            this.number = number;
            this.account = account;
            this.statement = statement;
            this.at = at;
        }
    }

    record UploadRow(long id, long componentId, String component, String number, long accountId, String account,
            String statement, String status) {}

    record FileRow(String kind, String name, String fileName, long size, String digest, boolean complete) {}

    String COLUMNS = """
            select u.id, u.component_id, c.name as component, u.number, u.account_id, a.name as account, u.statement,
              u.status
            from upload u join component c on c.id = u.component_id join account a on a.id = u.account_id
            """;

    @Insert("""
            insert into upload (component_id, number, account_id, statement, status, created_at)
            values (#{component}, #{number}, #{account}, #{statement}, 'open', #{at})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewUpload upload);

    @Insert("insert into upload_file (upload_id, kind, name, file_name, size, digest) values (#{upload}, #{kind}, "
            + "#{name}, #{fileName}, #{size}, #{digest})")
    int addFile(long upload, String kind, String name, String fileName, long size, String digest);

    @Select(COLUMNS + "where u.id = #{id}")
    Optional<UploadRow> byId(long id);

    @Select(COLUMNS + "where u.id = #{id} for update")
    UploadRow locked(long id);

    /** Of the same statement, to go on with. */
    @Select(COLUMNS + """
            where u.component_id = #{component} and u.number = #{number} and u.account_id = #{account} and u.status =
              'open'
              and u.statement = #{statement} order by u.id desc limit 1""")
    Optional<UploadRow> open(long component, String number, long account, String statement);

    @Select("select kind, name, file_name, size, digest, complete from upload_file where upload_id = #{upload} "
            + "order by kind, name")
    List<FileRow> files(long upload);

    @Update("update upload_file set complete = true where upload_id = #{upload} and kind = #{kind} and name = #{name}")
    int complete(long upload, String kind, String name);

    @Update("update upload set status = #{status}, ended_at = #{now} where id = #{id} and status = 'open'")
    int end(long id, String status, Instant now);

    @Select("select id from upload where status = 'open' and created_at < #{before} limit 20")
    List<Long> forgotten(Instant before);

    @Delete("delete from upload_file where upload_id = #{upload} and not complete")
    int dropFiles(long upload);
}
