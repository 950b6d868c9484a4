-- The kinds of rows whose state the trail has stated once: found here, and not by reading all of the trail at each start.
create table stated_kind (
  kind varchar(60) not null primary key
);
grant select, insert on stated_kind to '${service_user}'@'127.0.0.1';
