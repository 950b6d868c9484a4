-- When no replica of the service was at work: what ran then is said to have taken that much less. outside_at: by the clock that nobody moves.
alter table presence add column outside_at datetime(6) null;
create table absence (
  from_at datetime(6) not null primary key,
  to_at datetime(6) not null,
  key (to_at)
);
grant select, insert, update, delete on absence to '${service_user}'@'127.0.0.1';
