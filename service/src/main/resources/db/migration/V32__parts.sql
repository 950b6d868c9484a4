-- What versions are made of, as reports of parts (CycloneDX) say.
create table part (
  id bigint auto_increment primary key,
  evidence_id bigint not null references evidence (id),
  name varchar(300) not null,
  version varchar(120) not null,
  licence varchar(300) not null,
  -- The last word of its name, as people look for it.
  short_name varchar(300) as (substring_index(name, '/', -1)) virtual,
  key (evidence_id), key (name, version), key (short_name)
);
grant select, insert on part to '${service_user}'@'127.0.0.1';
