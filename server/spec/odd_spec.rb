# frozen_string_literal: true

require_relative "spec_helper"

# Every route with values nobody should send: whatever comes, it is refused with the field, and
# nothing goes wrong in the server.
RSpec.describe "Odd requests", type: :request do
  before(:all) { @values = [nil, false, true, -1, 0, 1e308, 10**30, "", "x", "1", "a\0b", "\u202e", "../..", "x" * 400, [], [[]], [nil], ["x"], [1] * 3, {}, {"a" => 1}, [{}], {"output" => []}] }

  let(:names) {
    %w[name document revision words steps shots clips frame first count region screen sequence on trial test tap output outputs template handles skip seen targets encoding range pace rate
      copying path root flag note family member to hero recipe enabled from source record start priority paused still swatch measure scopes light bands x y step change width height parameters
      formats layers per size format view folder description peg onto swatches beside difference gain skin acts kind confirm input_rules canvas working_space]
  }

  let(:cut) { Studio.cut(@folder) }

  # @return [Array<Array(String, String)>] method and path, with ids that are there
  def routes(ids)
    Server::App.routes.slice("GET", "POST", "PUT", "PATCH", "DELETE").flat_map do |method, list|
      list.map { |pattern, *| [method, pattern.to_s] }.select { |_, path| path.start_with?("/api/") && path != "/api/*" }
        .map { |_, path| [method, path.gsub(/:\w+/) { |name| ids.call(path, name) }.gsub("(.:format)", "").delete_suffix("(.*)")] }
    end
  end

  def ids
    shot = cut.loaded_shots.first
    known = {"projects" => cut.project_id, "cuts" => cut.id, "shots" => shot.id, "recipes" => shot.recipe.id}
    lambda do |path, name|
      next "cube" if name == ":format"

      (name == ":clip") ? shot.clip_id.to_s : known.fetch(path[%r{/api/(\w+)}, 1], 1).to_s
    end
  end

  def sent(method, path, body: nil, query: nil)
    address = "#{path.delete_prefix("/api")}#{"?#{query}" if query}"
    call(method, address, body)
    last_response.status
  end

  it "are answered below 500, whatever is in the body" do
    random = Random.new(1)
    failed = []
    routes(ids).reject { |method, path| method == "GET" || (method == "DELETE" && path.match?(%r{\A/api/projects/\d+\z})) }.each do |method, path|
      12.times do |round|
        body = names.sample(10, random:).to_h { |name| [name, @values.sample(random:)] }
        body = ["[1]", "{", "\xFF\xFE{}".b, "null", body.to_json, body.to_json][round % 6] if round < 6
        status = sent(method, path, body:)
        failed << [method, path, body.to_s[0, 300]] if status >= 500
      end
    end
    expect(failed).to eq([])
  end

  it "are answered below 500, whatever is in the query and the path" do
    random = Random.new(2)
    failed = []
    odd = ["%FF", "%00", "a[]=1", "[a]=1", "1e308", "-1", "99999999999999999999", "x" * 500, "%F0%9F%8E%AC", "..%2f..", ""]
    routes(ids).select { |method, _| method == "GET" }.each do |method, path|
      8.times do
        query = names.sample(6, random:).map { |name|
          value = odd.sample(random:)
          value.include?("=") ? "#{name}#{value.delete_prefix("a")}" : "#{name}=#{value}"
        }.join("&")
        status = sent(method, path, query:)
        failed << [path, query[0, 200]] if status >= 500
      end
      %w[%FF %00 x 99999999999999999999 -1].each do |id|
        status = sent(method, path.sub(%r{/\d+}, "/#{id}"))
        failed << [path, id] if status >= 500
      end
    end
    expect(failed).to eq([])
  end
end
