-- Whether somebody told who pushed; else the actor is only who made the newest commit.
alter table trigger_event add column told boolean not null default true;
-- How many bytes each component has kept; about, for what was kept before: whatever came twice counts once there.
create table component_bytes (
  component_id bigint primary key references component (id),
  bytes bigint not null,
  told boolean not null default false
);
insert into component_bytes (component_id, bytes)
select component_id, sum(size) from (
  select r.component_id, o.size from run_output o join run r on r.id = o.run_id
  union all select r.component_id, f.size from stage_files f join run r on r.id = f.run_id
  union all select component_id, size from reuse_cache
  union all select u.component_id, f.size from upload_file f join upload u on u.id = f.upload_id where f.complete
  union all select coalesce(r.component_id, p.component_id), b.size from log_block l join byte_object b on b.digest = l.digest join work w on w.id = l.work_id
    left join run r on r.id = w.run_id left join deployment d on d.id = w.deployment_id left join place p on p.id = d.place_id
) kept where component_id is not null group by component_id;
grant select, insert, update, delete on component_bytes to '${service_user}'@'127.0.0.1';
-- Loosenings that wait until a second person agrees; what each of those who are asked said.
create table wanted_loosening (
  id bigint auto_increment primary key,
  kind varchar(20) not null,
  what json not null,
  body mediumtext not null,
  digest char(64) not null,
  asked json not null,
  by_id bigint not null references account (id),
  at datetime(6) not null,
  status varchar(10) not null,
  ending varchar(1000) null,
  ended_at datetime(6) null,
  key (status)
);
create table loosening_word (
  loosening_id bigint not null references wanted_loosening (id),
  account_id bigint not null references account (id),
  yes boolean not null,
  comment varchar(2000) not null,
  at datetime(6) not null,
  primary key (loosening_id, account_id)
);
grant select, insert, update on wanted_loosening to '${service_user}'@'127.0.0.1';
grant select, insert on loosening_word to '${service_user}'@'127.0.0.1';
-- What each member of a set was when its gate opened: compared again before its turn.
alter table set_promotion add column subjects json null;
