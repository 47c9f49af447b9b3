create table write_count (
    id integer primary key,
    writes bigint not null
);
insert into write_count (id, writes) values (1, 0);
