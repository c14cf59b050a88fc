@extends('layouts.harbour')

@section('title', 'Departures')

@section('content')
    <h1>Departures</h1>
    <p>{{ $island }}</p>
@endsection
