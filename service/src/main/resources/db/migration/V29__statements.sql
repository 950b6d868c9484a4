-- Signed statements: of each version how it came about, of each deployment that it went live. They are only inserted.
create table statement (
  id bigint auto_increment primary key,
  version_id bigint null unique references version (id),
  deployment_id bigint null unique references deployment (id),
  envelope mediumtext not null,
  at datetime(6) not null
);
grant select, insert on statement to '${service_user}'@'127.0.0.1';
alter table run_output add key (digest);
alter table version add key (bundle);
insert into effect (aggregate, idempotency_key, kind, body, format, due_at, deadline)
  select concat('statement ', id), concat('state version ', id), 'state-version', concat(id), 1, utc_timestamp(6),
    date_add(utc_timestamp(6), interval 1 day) from version
  union all select concat('statement live ', id), concat('state live ', id), 'state-live', concat(id), 1,
    utc_timestamp(6), date_add(utc_timestamp(6), interval 1 day) from deployment where live_at is not null;
