-- Which processes serve, and when each was last at work.
create table replica (
  name varchar(160) primary key,
  started_at datetime(6) not null,
  seen_at datetime(6) not null
);
grant select, insert, update, delete on replica to '${service_user}'@'127.0.0.1';
