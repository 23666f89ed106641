# frozen_string_literal: true

# A small production made of generated footage.
module Studio
  module_function

  # @param footage [Symbol] a method of Footage
  # @return [Server::Cut] two shots of greys with a dissolve of two frames between
  def cut(folder, encoding: "acescct", footage: :steps)
    project = Server::Project.create!(name: "Trial", width: 64, height: 36)
    root = Server::MediaRoot.configure(folder)
    taking = Server::Intake::Taking.new(project, root)
    clips = %w[one two].map do |name|
      Footage.public_send(footage, folder, name: "#{name}.mkv")
      taking.call("#{name}.mkv").tap { |clip| clip.update!(encoding:, encoding_reason: "assigned by hand") if encoding }
    end
    cut = Server::Cut.create_named!(project, "Cut 1")
    cut.add([{clip: clips[0], position: 0, source_in: 0, record_in: 0, length: 8}])
    cut.add([{clip: clips[1], position: 1, source_in: 2, record_in: 8, length: 6, dissolve: 2}])
    Server::Cut.find(cut.id)
  end

  def balance(id = "a", **parameters)
    {"steps" => [{"id" => id, "kind" => "balance", "parameters" => parameters.transform_keys(&:to_s)}]}
  end
end

RSpec::Matchers.define_negated_matcher :not_include, :include
