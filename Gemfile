# frozen_string_literal: true

source "https://rubygems.org"

ruby ">= 3.1"

# Core: array maths, XML, stills, code loading.
gem "matrix", "~> 0.4"
# Nokogiri is held where a built gem is to be had: compiling it is the longest part
# of a first set-up otherwise.
gem "nokogiri", "1.17.2"
gem "numo-narray", "~> 0.9.2"
gem "ruby-vips", "~> 2.2"
gem "zeitwerk", "~> 2.6.18"

# Server: routes, data, long work.
gem "activerecord", "~> 7.1.0"
gem "bcrypt", "~> 3.1"
gem "pg", "~> 1.5"
gem "puma", "~> 6.4"
gem "que", "~> 2.4"
gem "rackup", "~> 2.1"
gem "sinatra", "~> 4.0"

group :test do
  gem "capybara", "~> 3.40"
  gem "cuprite", "~> 0.15"
  gem "rack-test", "~> 2.1"
  gem "rspec", "~> 3.12"
  gem "standard", "~> 1.40.0", require: false

  # Held where no parser has to be compiled.
  gem "rubocop-ast", "< 1.38", require: false
end
