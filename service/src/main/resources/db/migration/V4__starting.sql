-- Triggers in force: those of the file of each component's main branch, for what happens elsewhere or by the clock.
alter table component add column triggers_file_id bigint null;
create table start_trigger (
  component_id bigint not null references component (id),
  position int not null,
  kind varchar(12) not null,
  source varchar(63) not null default '',
  environment varchar(63) not null default '',
  cron varchar(120) null,
  zone varchar(60) null,
  next_at datetime(6) null,
  primary key (component_id, position, source),
  key (source, kind), key (next_at)
);
-- What happened, and what each trigger that it concerned made of it. The key keeps one event from being told twice.
create table trigger_event (
  id bigint auto_increment primary key,
  component_id bigint not null references component (id),
  kind varchar(12) not null,
  event_key varchar(300) null,
  branch varchar(200) null,
  commit_id varchar(64) null,
  sentence varchar(700) not null,
  actor varchar(200) not null,
  cause_id bigint null references cause (id),
  reason varchar(2000) null,
  at datetime(6) not null,
  unique (component_id, kind, event_key),
  key (component_id, id), key (component_id, commit_id)
);
create table considered (
  event_id bigint not null references trigger_event (id),
  component_id bigint not null references component (id),
  source_id bigint not null references component (id),
  position int not null,
  words varchar(700) not null,
  run_id bigint null references run (id),
  reason varchar(2000) null,
  primary key (event_id, component_id, position),
  key (component_id, event_id), key (component_id, source_id, event_id)
);
insert into trigger_event (id, component_id, kind, branch, commit_id, sentence, actor, reason, at)
  select id, component_id, 'push', branch, commit_id, concat('push ', left(commit_id, 7), ' to ', branch, ' by ', pusher), pusher, reason, seen_at from push;
insert into considered (event_id, component_id, source_id, position, words, run_id, reason)
  select id, component_id, component_id, 0, 'push', run_id, reason from push;
drop table push;

-- With which versions of its upstream components a run was started; and the version whose arrival started it.
create table run_upstream (
  run_id bigint not null references run (id),
  component_id bigint not null references component (id),
  version_id bigint not null references version (id),
  primary key (run_id, component_id)
);
alter table run add column arrived_version_id bigint null references version (id), add key (line_id, number);
create table tag_head (
  component_id bigint not null references component (id),
  tag varchar(200) not null,
  commit_id varchar(64) not null,
  seen_at datetime(6) not null,
  primary key (component_id, tag)
);
create table version_name (
  component_id bigint not null references component (id),
  name varchar(200) not null,
  version_id bigint not null references version (id),
  primary key (component_id, name)
);

-- Sources: when each repository is listed next, and how hooks that cannot sign our way are read.
create table repository_poll (
  repository varchar(500) primary key,
  next_at datetime(6) not null,
  failures int not null default 0,
  last_error varchar(1000) null,
  listing char(64) null,
  looked_at datetime(6) null,
  key (next_at)
);
create table hook_mapping (component_id bigint primary key references component (id), body json not null);

-- Versions from elsewhere.
alter table version add column origin varchar(300) null;
create table version_author (
  version_id bigint not null references version (id),
  address varchar(254) not null,
  primary key (version_id, address)
);
alter table personal_token add column action varchar(40) null, add column component_id bigint null references component (id);
create table upload (
  id bigint auto_increment primary key,
  component_id bigint not null references component (id),
  number varchar(120) not null,
  account_id bigint not null references account (id),
  statement json not null,
  status varchar(10) not null,
  created_at datetime(6) not null,
  ended_at datetime(6) null,
  key (status, created_at)
);
create table upload_file (
  upload_id bigint not null references upload (id),
  kind varchar(10) not null,
  name varchar(63) not null,
  file_name varchar(255) not null,
  size bigint not null,
  digest char(64) not null,
  complete boolean not null default false,
  primary key (upload_id, kind, name)
);
create table watched_store (
  id bigint auto_increment primary key,
  component_id bigint not null references component (id),
  kind varchar(10) not null,
  address varchar(500) not null,
  body json not null,
  next_at datetime(6) not null,
  failures int not null default 0,
  last_error varchar(1000) null,
  looked_at datetime(6) null,
  key (next_at)
);
create table store_sighting (
  store_id bigint not null references watched_store (id),
  name varchar(200) not null,
  digest varchar(80) not null,
  version_id bigint null references version (id),
  reason varchar(1000) null,
  seen_at datetime(6) not null,
  primary key (store_id, name)
);

-- Events out: who receives them, what was sent, and every attempt.
create table receiver (
  id bigint auto_increment primary key,
  name varchar(63) not null unique,
  address varchar(500) not null,
  kinds json not null,
  components json not null,
  created_at datetime(6) not null,
  stopped_at datetime(6) null
);
create table outgoing (
  id bigint auto_increment primary key,
  receiver_id bigint not null references receiver (id),
  message varchar(80) not null,
  kind varchar(80) not null,
  body mediumtext not null,
  created_at datetime(6) not null,
  due_at datetime(6) not null,
  tries int not null default 0,
  delivered_at datetime(6) null,
  gave_up_at datetime(6) null,
  unique (receiver_id, message),
  key (delivered_at, gave_up_at, due_at)
);
create table outgoing_attempt (
  outgoing_id bigint not null references outgoing (id),
  number int not null,
  at datetime(6) not null,
  millis int not null,
  status int null,
  error varchar(500) null,
  primary key (outgoing_id, number)
);

grant select, insert, update, delete on start_trigger to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on trigger_event to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on considered to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on run_upstream to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on tag_head to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on version_name to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on repository_poll to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on hook_mapping to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on version_author to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on upload to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on upload_file to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on watched_store to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on store_sighting to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on receiver to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on outgoing to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on outgoing_attempt to '${service_user}'@'127.0.0.1';
