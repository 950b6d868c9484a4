-- What is retired keeps its history; nothing begins with it any more.
alter table component add column retired_at datetime(6) null;
alter table environment add column retired_at datetime(6) null;
alter table place add column retired_at datetime(6) null;
alter table host add column retired_at datetime(6) null;
alter table agent add column retired_at datetime(6) null;
-- Names that a component had; they still reach it.
create table former_name (
  name varchar(63) primary key,
  component_id bigint not null references component (id)
);
grant select, insert, update, delete on former_name to '${service_user}'@'127.0.0.1';
-- A commit can be read for more than one path, where a component's file moved.
alter table pipeline_file add column path varchar(200) not null default '';
update pipeline_file f join component c on c.id = f.component_id set f.path = c.file_path;
alter table pipeline_file add unique key at_path (component_id, commit_id, path);
alter table pipeline_file drop key component_id;
