-- Who may: accounts, verified addresses, groups, roles.
create table account (
  id bigint auto_increment primary key,
  name varchar(64) not null unique,
  password_hash varchar(255) not null,
  created_at datetime(6) not null,
  disabled_at datetime(6) null
);
create table account_address (
  address varchar(254) primary key,
  account_id bigint not null references account (id),
  verified_at datetime(6) not null
);
create table account_group (id bigint auto_increment primary key, name varchar(64) not null unique);
create table group_member (
  group_id bigint not null references account_group (id),
  account_id bigint not null references account (id),
  primary key (group_id, account_id)
);
create table role_grant (
  id bigint auto_increment primary key,
  account_id bigint null references account (id),
  group_id bigint null references account_group (id),
  role varchar(32) not null,
  component_id bigint null,
  environment_id bigint null,
  check ((account_id is null) <> (group_id is null))
);
create table sign_in_session (
  token_hash char(64) primary key,
  account_id bigint not null references account (id),
  created_at datetime(6) not null,
  expires_at datetime(6) not null
);
create table personal_token (
  id bigint auto_increment primary key,
  token_hash char(64) not null unique,
  account_id bigint not null references account (id),
  label varchar(120) not null,
  created_at datetime(6) not null,
  expires_at datetime(6) not null,
  revoked_at datetime(6) null
);

-- One clock for all replicas: the database's time plus an offset that only grows.
create table clock_offset (id tinyint primary key, micros bigint not null, check (id = 1), check (micros >= 0));
insert into clock_offset values (1, 0);
create table presence (id tinyint primary key, last_alive datetime(6) not null, check (id = 1));
insert into presence values (1, utc_timestamp(6));

-- Components, their branches and the files in force.
create table component (
  id bigint auto_increment primary key,
  name varchar(63) not null unique,
  repository varchar(500) null,
  file_path varchar(200) not null,
  main_branch varchar(200) not null,
  summary varchar(400) not null default '',
  created_at datetime(6) not null
);
create table branch_rule (
  component_id bigint not null references component (id),
  pattern varchar(200) not null,
  trusted boolean not null,
  primary key (component_id, pattern)
);
create table pipeline_file (
  id bigint auto_increment primary key,
  component_id bigint not null references component (id),
  commit_id varchar(64) not null,
  text mediumtext not null,
  problems json not null,
  read_at datetime(6) not null,
  unique (component_id, commit_id)
);
create table head (
  component_id bigint not null references component (id),
  branch varchar(200) not null,
  commit_id varchar(64) not null,
  pipeline_file_id bigint null references pipeline_file (id),
  seen_at datetime(6) not null,
  primary key (component_id, branch)
);
create table hook_delivery (
  component_id bigint not null references component (id),
  delivery varchar(120) not null,
  received_at datetime(6) not null,
  primary key (component_id, delivery)
);
-- What each push led to, and why where it led to nothing.
create table push (
  id bigint auto_increment primary key,
  component_id bigint not null references component (id),
  branch varchar(200) not null,
  commit_id varchar(64) not null,
  pusher varchar(200) not null,
  seen_at datetime(6) not null,
  run_id bigint null,
  reason varchar(2000) null,
  key (component_id, id)
);
create table line (
  id bigint auto_increment primary key,
  component_id bigint not null references component (id),
  branch varchar(200) not null,
  unique (component_id, branch)
);
create table counter (
  component_id bigint not null references component (id),
  scope varchar(240) not null,
  last bigint not null,
  primary key (component_id, scope)
);
create table reserved_number (
  component_id bigint not null references component (id),
  number varchar(120) not null,
  run_id bigint null,
  primary key (component_id, number)
);

-- Causes form a chain.
create table cause (
  id bigint auto_increment primary key,
  parent_id bigint null references cause (id),
  kind varchar(20) not null,
  body json not null,
  at datetime(6) not null
);

-- Runs. The state is the truth; the columns beside it are for looking things up.
create table run (
  id bigint auto_increment primary key,
  component_id bigint not null references component (id),
  number bigint not null,
  line_id bigint not null references line (id),
  commit_id varchar(64) not null,
  branch varchar(200) not null,
  trusted boolean not null,
  pipeline_file_id bigint not null references pipeline_file (id),
  cause_id bigint not null references cause (id),
  version_number varchar(120) not null,
  up_to varchar(63) null,
  commit_summary varchar(500) not null,
  commit_author varchar(300) not null,
  bundle char(64) null,
  status varchar(12) not null,
  state json not null,
  format int not null,
  revision bigint not null,
  reason varchar(2000) null,
  created_at datetime(6) not null,
  started_at datetime(6) null,
  ended_at datetime(6) null,
  wake_at datetime(6) null,
  unique (component_id, number),
  key (status, wake_at)
);
create table stage (
  id bigint auto_increment primary key,
  run_id bigint not null references run (id),
  position int not null,
  name varchar(63) not null,
  variant varchar(120) not null,
  attempt int not null,
  status varchar(12) not null,
  reason varchar(2000) null,
  started_at datetime(6) null,
  ended_at datetime(6) null,
  unique (run_id, name, variant, attempt)
);
create table run_output (
  run_id bigint not null references run (id),
  stage_id bigint not null references stage (id),
  name varchar(63) not null,
  file_name varchar(255) not null,
  digest char(64) not null,
  size bigint not null,
  primary key (run_id, name)
);

-- Versions and what is known about them.
create table version (
  id bigint auto_increment primary key,
  component_id bigint not null references component (id),
  number varchar(120) not null,
  line_id bigint not null references line (id),
  line_order bigint not null,
  trusted boolean not null,
  run_id bigint null references run (id),
  commit_id varchar(64) null,
  recipe json not null,
  bundle char(64) null,
  route json not null,
  digest char(64) not null,
  cause_id bigint not null references cause (id),
  sealed_at datetime(6) not null,
  blocked_at datetime(6) null,
  unique (component_id, number),
  key (line_id, line_order)
);
create table version_artifact (
  version_id bigint not null references version (id),
  name varchar(63) not null,
  file_name varchar(255) not null,
  digest char(64) not null,
  size bigint not null,
  primary key (version_id, name)
);
create table evidence (
  id bigint auto_increment primary key,
  version_id bigint null references version (id),
  run_id bigint null references run (id),
  stage_id bigint null references stage (id),
  environment_id bigint null,
  kind varchar(40) not null,
  origin varchar(200) not null,
  body json not null,
  at datetime(6) not null,
  key (version_id), key (run_id)
);
create table version_set (id bigint auto_increment primary key, name varchar(63) not null unique, created_at datetime(6) not null);
create table version_set_member (
  set_id bigint not null references version_set (id),
  version_id bigint not null references version (id),
  position int not null,
  primary key (set_id, version_id)
);

-- Bytes: references are rows.
create table byte_object (digest char(64) primary key, size bigint not null, arrived_at datetime(6) not null);
create table byte_reference (
  digest char(64) not null references byte_object (digest),
  owner_kind varchar(20) not null,
  owner_id bigint not null,
  primary key (digest, owner_kind, owner_id)
);

-- Environments, places, hosts.
create table environment (
  id bigint auto_increment primary key,
  name varchar(63) not null unique,
  position int not null,
  zone varchar(60) not null,
  follows varchar(63) null,
  rules json not null,
  rules_revision bigint not null,
  temporary boolean not null default false,
  closed_until datetime(6) null
);
create table environment_rules (
  environment_id bigint not null references environment (id),
  revision bigint not null,
  rules json not null,
  set_by bigint not null references account (id),
  at datetime(6) not null,
  primary key (environment_id, revision)
);
create table host (id bigint auto_increment primary key, name varchar(63) not null unique);
create table place (
  id bigint auto_increment primary key,
  environment_id bigint not null references environment (id),
  component_id bigint not null references component (id),
  url varchar(500) null,
  settings_revision bigint not null,
  live_deployment_id bigint null,
  wake_at datetime(6) null,
  revision bigint not null default 0,
  unique (environment_id, component_id),
  key (wake_at)
);
create table place_settings (
  place_id bigint not null references place (id),
  revision bigint not null,
  body json not null,
  set_by bigint not null references account (id),
  at datetime(6) not null,
  primary key (place_id, revision)
);
create table place_host (
  place_id bigint not null references place (id),
  host_id bigint not null references host (id),
  position int not null,
  url varchar(500) null,
  primary key (place_id, host_id)
);
create table hold (
  id bigint auto_increment primary key,
  place_id bigint not null references place (id),
  reason varchar(1000) not null,
  set_by bigint not null references account (id),
  at datetime(6) not null,
  lifted_at datetime(6) null
);

-- Secrets: envelope encryption; the key is outside the database.
create table secret (
  id bigint auto_increment primary key,
  name varchar(63) not null,
  component_id bigint not null default 0,
  environment_id bigint not null default 0,
  unique (name, component_id, environment_id)
);
create table secret_revision (
  id bigint auto_increment primary key,
  secret_id bigint not null references secret (id),
  ciphertext varbinary(20000) not null,
  data_key varbinary(100) not null,
  set_by bigint null references account (id),
  at datetime(6) not null,
  key (secret_id, id)
);
create table secret_access (
  component_id bigint not null references component (id),
  name varchar(63) not null,
  primary key (component_id, name)
);

-- Deployments, decisions, passages, what each host has.
create table deployment (
  id bigint auto_increment primary key,
  place_id bigint not null references place (id),
  version_id bigint not null references version (id),
  kind varchar(12) not null,
  status varchar(12) not null,
  state json not null,
  format int not null,
  revision bigint not null,
  replaces_id bigint null references deployment (id),
  set_id bigint null references version_set (id),
  subject char(64) null,
  settings_revision bigint not null,
  secret_revisions json not null,
  requested_by bigint null references account (id),
  emergency_reason varchar(1000) null,
  cause_id bigint not null references cause (id),
  reason varchar(2000) null,
  requested_at datetime(6) not null,
  started_at datetime(6) null,
  live_at datetime(6) null,
  ended_at datetime(6) null,
  key (place_id, status), key (version_id), key (place_id, live_at)
);
create table ruling (
  id bigint auto_increment primary key,
  deployment_id bigint not null references deployment (id),
  account_id bigint not null references account (id),
  yes boolean not null,
  comment varchar(2000) not null,
  subject char(64) not null,
  at datetime(6) not null,
  key (deployment_id)
);
create table passage (
  id bigint auto_increment primary key,
  version_id bigint not null references version (id),
  environment_id bigint not null references environment (id),
  deployment_id bigint not null references deployment (id),
  status varchar(12) not null,
  format int not null,
  opened_at datetime(6) not null,
  ended_at datetime(6) null,
  unique (version_id, environment_id)
);
create table live_interval (
  id bigint auto_increment primary key,
  host_id bigint not null references host (id),
  component_id bigint not null references component (id),
  version_id bigint not null references version (id),
  deployment_id bigint not null references deployment (id),
  from_at datetime(6) not null,
  to_at datetime(6) null,
  key (host_id, component_id, to_at), key (version_id)
);

-- Agents and their work.
create table agent (
  id bigint auto_increment primary key,
  name varchar(63) not null unique,
  host_id bigint null unique references host (id),
  tags json not null,
  token_hash char(64) null unique,
  enrolment_hash char(64) null unique,
  enrolment_until datetime(6) null,
  enrolled_at datetime(6) null,
  last_contact datetime(6) null,
  drained boolean not null default false
);
create table work (
  id bigint auto_increment primary key,
  kind varchar(10) not null,
  run_id bigint null references run (id),
  stage_id bigint null references stage (id),
  deployment_id bigint null references deployment (id),
  host_id bigint null references host (id),
  status varchar(10) not null,
  agent_id bigint null references agent (id),
  fence bigint not null default 0,
  lease_hash char(64) null,
  lease_until datetime(6) null,
  stop varchar(10) not null default 'no',
  outcome json null,
  offered_at datetime(6) not null,
  taken_at datetime(6) null,
  ended_at datetime(6) null,
  key (status, host_id), key (status, lease_until), key (run_id), key (deployment_id)
);
create table step (
  work_id bigint not null references work (id),
  position int not null,
  tried int not null,
  name varchar(300) not null,
  status varchar(10) not null,
  exit_code int null,
  started_at datetime(6) not null,
  ended_at datetime(6) null,
  primary key (work_id, position, tried)
);
create table log_block (
  work_id bigint not null references work (id),
  first_line bigint not null,
  line_count bigint not null,
  digest char(64) not null,
  primary key (work_id, first_line)
);

-- The engine: what is still to be done outside, and what was told to those who look.
create table effect (
  id bigint auto_increment primary key,
  aggregate varchar(60) not null,
  idempotency_key varchar(120) not null unique,
  kind varchar(30) not null,
  body json not null,
  format int not null,
  due_at datetime(6) not null,
  deadline datetime(6) not null,
  tries int not null default 0,
  last_error varchar(1000) null,
  done_at datetime(6) null,
  key (done_at, due_at), key (aggregate, done_at, id)
);
create table live_event (
  sequence bigint auto_increment primary key,
  kind varchar(30) not null,
  subject varchar(120) not null,
  at datetime(6) not null
);
create table request_key (
  account_id bigint not null references account (id),
  request_key varchar(120) not null,
  answer varchar(200) not null,
  at datetime(6) not null,
  primary key (account_id, request_key)
);

-- The audit trail: entries and their positions in the tree are only ever inserted.
create table audit_entry (id bigint auto_increment primary key, body mediumtext not null);
create table audit_pending (entry_id bigint primary key references audit_entry (id));
create table audit_leaf (
  position bigint primary key,
  entry_id bigint not null unique,
  leaf_hash char(64) not null
);
create table tree_head (
  size bigint primary key,
  root char(64) not null,
  at varchar(40) not null,
  signature varchar(120) not null
);
create table lease (name varchar(40) primary key, holder varchar(64) not null, until_at datetime(6) not null);

-- Who wrote the commits that lead from one commit to another; worked out once, outside any transaction.
create table authorship (
  component_id bigint not null references component (id),
  from_commit varchar(64) not null,
  to_commit varchar(64) not null,
  addresses json not null,
  primary key (component_id, from_commit, to_commit)
);
insert into lease values ('audit-sequencer', '', utc_timestamp(6));
