-- Kept bytes are looked over from time to time; what is damaged is told once.
alter table byte_object add column scrubbed_at datetime(6) null, add key (scrubbed_at);
create table damaged_bytes (
  digest char(64) primary key references byte_object (digest),
  found char(64) not null,
  found_at datetime(6) not null
);
grant select, insert, update, delete on damaged_bytes to '${service_user}'@'127.0.0.1';
