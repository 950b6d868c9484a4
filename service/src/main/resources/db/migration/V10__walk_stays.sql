-- Walks that stay before an environment, and why; they are tried again until what is amiss is mended.
create table walk_stay (
  version_id bigint not null references version (id),
  environment varchar(63) not null,
  came_from varchar(63) not null,
  reason varchar(2000) not null,
  since_at datetime(6) not null,
  retry_at datetime(6) not null,
  primary key (version_id, environment),
  key (retry_at)
);
grant select, insert, update, delete on walk_stay to '${service_user}'@'127.0.0.1';
