-- Runs, whole: answers, turns, files between stages, what is taken and reused, reports.
alter table run
  add column answers json not null default '{}',
  add column newer_start varchar(12) not null default 'waits',
  add column prepared boolean not null default false,
  add key (line_id, status);
update run set prepared = true where status <> 'waiting';
alter table work add column wants json not null default '[]', add key (lease_hash);
alter table step add column peak_memory bigint null;
alter table stage add column reused varchar(300) null;
-- All lines of a block are of one step.
alter table log_block add column step int not null default 0;

-- The archive that a stage left for those after it.
create table stage_files (
  stage_id bigint primary key references stage (id),
  run_id bigint not null references run (id),
  digest char(64) not null,
  size bigint not null,
  paths mediumtext not null,
  key (run_id)
);
-- What a stage takes from other components; decided once, when the run starts.
create table run_take (
  run_id bigint not null references run (id),
  stage varchar(63) not null,
  position int not null,
  version_id bigint not null references version (id),
  artifact varchar(63) not null,
  into_folder varchar(300) not null,
  because varchar(200) not null,
  primary key (run_id, stage, position)
);
-- The components whose artifacts a component may take.
create table component_source (
  component_id bigint not null references component (id),
  source_id bigint not null references component (id),
  all_branches boolean not null,
  primary key (component_id, source_id)
);
create table component_link (
  component_id bigint not null references component (id),
  title varchar(60) not null,
  address varchar(500) not null,
  position int not null,
  primary key (component_id, title)
);
-- Folders kept from run to run. Trusted branches share the scope ''; every other branch has its own.
create table reuse_cache (
  id bigint auto_increment primary key,
  component_id bigint not null references component (id),
  scope varchar(200) not null,
  name char(64) not null,
  key_digest char(64) not null,
  digest char(64) not null,
  size bigint not null,
  run_id bigint not null references run (id),
  kept_at datetime(6) not null,
  unique (component_id, scope, name, key_digest)
);
create table test_failure (
  run_id bigint not null references run (id),
  stage_id bigint not null references stage (id),
  name varchar(400) not null,
  primary key (run_id, stage_id, name)
);
alter table evidence add key (stage_id, kind);

grant select, insert, update, delete on stage_files to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on run_take to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on component_source to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on component_link to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on reuse_cache to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on test_failure to '${service_user}'@'127.0.0.1';
