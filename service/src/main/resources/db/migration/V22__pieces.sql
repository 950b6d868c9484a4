-- A pipeline file that uses pieces is a row for each set of pieces that it was put together from.
alter table pipeline_file add column pieces char(64) not null default '';
alter table pipeline_file add unique key put_together (component_id, commit_id, path, pieces);
alter table pipeline_file drop key at_path;
create table piece_use (
  file_id bigint not null references pipeline_file (id),
  position int not null,
  place varchar(40) not null,
  piece varchar(63) not null,
  component_id bigint not null references component (id),
  named varchar(63) not null,
  wanted varchar(220) not null,
  version_id bigint not null references version (id),
  digest char(64) not null,
  within varchar(240) null,
  primary key (file_id, position),
  key of_component (component_id, piece, file_id)
);
grant select, insert, update, delete on piece_use to '${service_user}'@'127.0.0.1';
