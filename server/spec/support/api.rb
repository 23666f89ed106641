# frozen_string_literal: true

# Talking to the application as its front end does.
module Api
  include Rack::Test::Methods

  def app = Server::App

  def call(method, path, body = nil, **headers)
    header "Host", "127.0.0.1"
    get "/api/projects" unless rack_mock_session.cookie_jar["mordant_token"]
    header "X-Mordant-Token", rack_mock_session.cookie_jar["mordant_token"]
    headers.each { |name, value| header name.to_s.tr("_", "-"), value }
    custom_request(method.to_s.upcase, "/api#{path}", {}, {:input => body.is_a?(String) ? body : body&.to_json, "CONTENT_TYPE" => "application/json"})
    last_response
  end

  def json = JSON.parse(last_response.body)

  APART = ["SCHEMA", "Server::Person Exists?"].freeze # the second asks once a second whether there are accounts

  # @yield what is asked for
  # @return [Integer] questions to the database that it took
  def questions
    count = 0
    counting = ->(*, payload) { count += 1 unless APART.include?(payload[:name]) }
    ActiveSupport::Notifications.subscribed(counting, "sql.active_record") { yield }
    count
  end

  # Runs what is queued, as a worker would.
  def work_off
    Que::Job.run_synchronously = false
    while (row = ActiveRecord::Base.connection.select_one("SELECT id, job_class, args FROM que_jobs ORDER BY id LIMIT 1"))
      ActiveRecord::Base.connection.execute("DELETE FROM que_jobs WHERE id = #{row["id"]}")
      Object.const_get(row["job_class"]).new({}).run(*JSON.parse(row["args"]))
    end
  end
end
