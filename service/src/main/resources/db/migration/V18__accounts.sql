-- Who disabled an account and why; when somebody signed in last; as whom another provider knows them.
alter table account
  add column disabled_by varchar(64) null,
  add column disabled_reason varchar(1000) null,
  add column signed_in_at datetime(6) null,
  add column external_subject varchar(400) null unique;
-- What a token may of what its owner may, as words separated by commas (none: all of it), and when it was used last.
alter table personal_token
  add column may varchar(400) null,
  add column used_at datetime(6) null,
  add column revoked_by varchar(64) null;
update personal_token set may = lower(replace(action, '_', '-'));
alter table personal_token drop column action;
-- Which groups the provider of sign-ins gave, and may take.
alter table group_member add column by_provider boolean not null default false;
-- Which agents should take a new secret.
alter table agent add column renew boolean not null default false;
-- What was loosened, and what is reviewed because of it.
create table loosening (
  id bigint auto_increment primary key,
  environment_id bigint null references environment (id),
  component_id bigint null references component (id),
  what varchar(1000) not null,
  by_id bigint not null references account (id),
  at datetime(6) not null,
  key (environment_id, at), key (component_id, at)
);
grant select, insert, update, delete on loosening to '${service_user}'@'127.0.0.1';
alter table review add column reason varchar(1000) null, add column loosened_by bigint null references account (id);
-- One-time codes with which somebody sets a new password.
create table password_reset (
  code_hash char(64) primary key,
  account_id bigint not null references account (id),
  made_by varchar(64) not null,
  created_at datetime(6) not null,
  expires_at datetime(6) not null
);
grant select, insert, update, delete on password_reset to '${service_user}'@'127.0.0.1';
