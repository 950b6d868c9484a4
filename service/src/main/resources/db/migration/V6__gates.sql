-- Whereabouts: what is open and what began last are looked up, and hosts are counted when they change.
alter table deployment add key (status, place_id), add key (place_id, started_at);
alter table environment add column hosts int not null default 0;
update environment e set e.hosts = (select count(distinct ph.host_id) from place p join place_host ph on ph.place_id = p.id where p.environment_id = e.id);

-- Which replica told it: its own agents and workers were woken as it committed.
alter table live_event add column replica varchar(36) not null default '';

-- Decisions are about deployments or passages, remember what exactly was seen, and can be taken back.
alter table ruling modify column deployment_id bigint null, add column passage_id bigint null, add column parts json null,
  add column taken_back_at datetime(6) null, add key (passage_id);
create table tick (
  id bigint auto_increment primary key,
  deployment_id bigint null references deployment (id),
  passage_id bigint null references passage (id),
  item varchar(300) not null,
  account_id bigint not null references account (id),
  outcome varchar(8) not null,
  note varchar(2000) not null,
  picture char(64) null,
  at datetime(6) not null,
  key (deployment_id), key (passage_id)
);
-- Who decides in another's place: for a time, or for one deployment that was handed on.
create table stand_in (
  id bigint auto_increment primary key,
  account_id bigint not null references account (id),
  deputy_id bigint not null references account (id),
  deployment_id bigint null references deployment (id),
  from_at datetime(6) not null,
  until_at datetime(6) null,
  set_by bigint not null references account (id),
  lifted_at datetime(6) null,
  key (deputy_id), key (account_id)
);
-- Answers from outside; the token that gives one is known to whoever was asked.
create table outside_answer (
  id bigint auto_increment primary key,
  deployment_id bigint not null references deployment (id),
  name varchar(63) not null,
  token_hash char(64) not null unique,
  asked_at datetime(6) not null,
  answered_at datetime(6) null,
  yes boolean null,
  words varchar(2000) not null default '',
  unique (deployment_id, name)
);

-- Passages: settled once what went live was watched and tested; their exit gates are judged from then on.
alter table passage add column settled_at datetime(6) null, add column revision bigint not null default 0, add column wake_at datetime(6) null,
  add column reason varchar(2000) null, add key (wake_at);
update passage set settled_at = ended_at where status = 'ended';
-- How long a version was live and healthy in a place in one stretch.
create table soak (
  place_id bigint not null references place (id),
  version_id bigint not null references version (id),
  since_at datetime(6) null,
  longest_micros bigint not null default 0,
  primary key (place_id, version_id)
);
insert into soak (place_id, version_id, since_at, longest_micros)
  select s.place_id, s.version_id, max(if(s.to_at is null, s.from_at, null)), coalesce(max(if(s.to_at is null, 0, timestampdiff(microsecond, s.from_at, s.to_at))), 0)
  from live_stretch s group by s.place_id, s.version_id;

grant select, insert, update, delete on tick to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on stand_in to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on outside_answer to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on soak to '${service_user}'@'127.0.0.1';

-- What waits, as it stood when its gate was last judged, and whom it waits for: lists are read, not judged.
create table gate_wait (
  id bigint auto_increment primary key,
  deployment_id bigint null unique references deployment (id),
  passage_id bigint null unique references passage (id),
  component_id bigint not null references component (id),
  environment_id bigint not null references environment (id),
  version_id bigint not null references version (id),
  kind varchar(10) not null,
  name varchar(300) not null,
  sentence varchar(2000) not null,
  since_at datetime(6) not null,
  due_at datetime(6) null,
  nobody boolean not null default false
);
create table gate_wait_person (
  wait_id bigint not null references gate_wait (id) on delete cascade,
  account_id bigint not null references account (id),
  primary key (account_id, wait_id)
);
update place set wake_at = utc_timestamp(6) where id in (select d.place_id from deployment d where d.status = 'waiting');
update passage set wake_at = utc_timestamp(6) where status = 'open';

-- What people are told, and how they want to be told.
create table notice (
  id bigint auto_increment primary key,
  account_id bigint not null references account (id),
  event varchar(20) not null,
  component varchar(63) not null,
  title varchar(300) not null,
  body varchar(4000) not null,
  path varchar(300) not null,
  dedupe varchar(200) not null,
  at datetime(6) not null,
  read_at datetime(6) null,
  mail_due_at datetime(6) null,
  mailed_at datetime(6) null,
  tries int not null default 0,
  unique (account_id, dedupe), key (account_id, id), key (mailed_at, mail_due_at)
);
create table notice_choice (
  account_id bigint not null references account (id),
  event varchar(20) not null,
  channel varchar(10) not null,
  delivery varchar(10) not null,
  primary key (account_id, event, channel)
);
create table mail_link (
  token_hash char(64) primary key,
  account_id bigint not null references account (id),
  path varchar(300) not null,
  expires_at datetime(6) not null,
  used_at datetime(6) null
);

grant select, insert, update, delete on gate_wait to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on gate_wait_person to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on notice to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on notice_choice to '${service_user}'@'127.0.0.1';
grant select, insert, update, delete on mail_link to '${service_user}'@'127.0.0.1';

-- Sets: named, immutable lists of versions, promoted as one.
alter table version_set add column created_by bigint null references account (id);
create table set_promotion (
  id bigint auto_increment primary key,
  set_id bigint not null references version_set (id),
  environment_id bigint not null references environment (id),
  status varchar(12) not null,
  requested_by bigint not null references account (id),
  comment varchar(1000) not null,
  requested_at datetime(6) not null,
  ended_at datetime(6) null,
  key (set_id)
);
alter table deployment add column promotion_id bigint null references set_promotion (id);
grant select, insert, update, delete on set_promotion to '${service_user}'@'127.0.0.1';
